using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261201230000_Baseline")]
    public partial class Baseline : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Arrangements",
                columns: table => new
                {
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    Service = table.Column<string>(type: "TEXT", nullable: false),
                    Arrangement = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Arrangements", x => new { x.Scope, x.Service });
                });

            migrationBuilder.CreateTable(
                name: "AspNetRoles",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    NormalizedName = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    ConcurrencyStamp = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetRoles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    DisplayName = table.Column<string>(type: "TEXT", nullable: false),
                    Signature = table.Column<string>(type: "TEXT", nullable: false),
                    BellSeen = table.Column<long>(type: "INTEGER", nullable: false),
                    ToldDailyAt = table.Column<string>(type: "TEXT", nullable: true),
                    ToldAtNight = table.Column<bool>(type: "INTEGER", nullable: false),
                    UserName = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    NormalizedUserName = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    Email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    NormalizedEmail = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    EmailConfirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    PasswordHash = table.Column<string>(type: "TEXT", nullable: true),
                    SecurityStamp = table.Column<string>(type: "TEXT", nullable: true),
                    ConcurrencyStamp = table.Column<string>(type: "TEXT", nullable: true),
                    PhoneNumber = table.Column<string>(type: "TEXT", nullable: true),
                    PhoneNumberConfirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    TwoFactorEnabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    LockoutEnd = table.Column<DateTimeOffset>(type: "TEXT", nullable: true),
                    LockoutEnabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    AccessFailedCount = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUsers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "BrandPictures",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BrandPictures", x => x.Hash);
                });

            migrationBuilder.CreateTable(
                name: "ClientImports",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FileName = table.Column<string>(type: "TEXT", nullable: false),
                    Encoding = table.Column<string>(type: "TEXT", nullable: false),
                    Plan = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    ByUser = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkedThrough = table.Column<int>(type: "INTEGER", nullable: false),
                    Made = table.Column<int>(type: "INTEGER", nullable: false),
                    Filled = table.Column<int>(type: "INTEGER", nullable: false),
                    LeftOut = table.Column<int>(type: "INTEGER", nullable: false),
                    Stayed = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientImports", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "CompletedRequests",
                columns: table => new
                {
                    Key = table.Column<Guid>(type: "TEXT", nullable: false),
                    Asked = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Status = table.Column<int>(type: "INTEGER", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CompletedRequests", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "EndedSessions",
                columns: table => new
                {
                    Session = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EndedSessions", x => x.Session);
                });

            migrationBuilder.CreateTable(
                name: "Fields",
                columns: table => new
                {
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Place = table.Column<int>(type: "INTEGER", nullable: false),
                    Field = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Fields", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "FormerUsers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    DisplayName = table.Column<string>(type: "TEXT", nullable: false),
                    Left = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FormerUsers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Forms",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Draft = table.Column<string>(type: "TEXT", nullable: false),
                    DraftRevision = table.Column<int>(type: "INTEGER", nullable: false),
                    DraftSaved = table.Column<long>(type: "INTEGER", nullable: false),
                    PublishedRevision = table.Column<int>(type: "INTEGER", nullable: false),
                    PublishedVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    ScreeningVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    ScreeningDraft = table.Column<string>(type: "TEXT", nullable: true),
                    LightOn = table.Column<bool>(type: "INTEGER", nullable: false),
                    AwayNote = table.Column<string>(type: "TEXT", nullable: false),
                    Settings = table.Column<string>(type: "TEXT", nullable: false),
                    Service = table.Column<string>(type: "TEXT", nullable: true),
                    Archived = table.Column<long>(type: "INTEGER", nullable: true),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Forms", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "InquiryListViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_InquiryListViews", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "LibraryMessages",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Folder = table.Column<string>(type: "TEXT", nullable: false),
                    Message = table.Column<string>(type: "TEXT", nullable: false),
                    Changed = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LibraryMessages", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "LookUpLists",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LookUpLists", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "MailboxPositions",
                columns: table => new
                {
                    Mailbox = table.Column<string>(type: "TEXT", nullable: false),
                    Validity = table.Column<long>(type: "INTEGER", nullable: false),
                    Last = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MailboxPositions", x => x.Mailbox);
                });

            migrationBuilder.CreateTable(
                name: "SavedViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SavedViews", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "StoredFollowThroughs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    IsOn = table.Column<bool>(type: "INTEGER", nullable: false),
                    Draft = table.Column<string>(type: "TEXT", nullable: true),
                    Archived = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StoredFollowThroughs", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Webhooks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    SecretSealed = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Webhooks", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetRoleClaims",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RoleId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClaimType = table.Column<string>(type: "TEXT", nullable: true),
                    ClaimValue = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetRoleClaims", x => x.Id);
                    table.ForeignKey(
                        name: "FK_AspNetRoleClaims_AspNetRoles_RoleId",
                        column: x => x.RoleId,
                        principalTable: "AspNetRoles",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClaimType = table.Column<string>(type: "TEXT", nullable: true),
                    ClaimValue = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserClaims", x => x.Id);
                    table.ForeignKey(
                        name: "FK_AspNetUserClaims_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    LoginProvider = table.Column<string>(type: "TEXT", nullable: false),
                    ProviderKey = table.Column<string>(type: "TEXT", nullable: false),
                    ProviderDisplayName = table.Column<string>(type: "TEXT", nullable: true),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserLogins", x => new { x.LoginProvider, x.ProviderKey });
                    table.ForeignKey(
                        name: "FK_AspNetUserLogins_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserRoles",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    RoleId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserRoles", x => new { x.UserId, x.RoleId });
                    table.ForeignKey(
                        name: "FK_AspNetUserRoles_AspNetRoles_RoleId",
                        column: x => x.RoleId,
                        principalTable: "AspNetRoles",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_AspNetUserRoles_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LoginProvider = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserTokens", x => new { x.UserId, x.LoginProvider, x.Name });
                    table.ForeignKey(
                        name: "FK_AspNetUserTokens_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Invites",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    Role = table.Column<string>(type: "TEXT", nullable: false),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: true),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Invites", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Invites_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Businesses",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerName = table.Column<string>(type: "TEXT", nullable: false),
                    MailAddress = table.Column<string>(type: "TEXT", nullable: false),
                    Region = table.Column<string>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Zone = table.Column<string>(type: "TEXT", nullable: false),
                    PublicAddress = table.Column<string>(type: "TEXT", nullable: false),
                    Hours = table.Column<string>(type: "TEXT", nullable: false),
                    PromiseHours = table.Column<int>(type: "INTEGER", nullable: false),
                    PromiseClock = table.Column<string>(type: "TEXT", nullable: false),
                    Look = table.Column<string>(type: "TEXT", nullable: false),
                    LogoHash = table.Column<string>(type: "TEXT", nullable: true),
                    OwnerPhoto = table.Column<Guid>(type: "TEXT", nullable: true),
                    ContactLines = table.Column<string>(type: "TEXT", nullable: false),
                    Signature = table.Column<string>(type: "TEXT", nullable: false),
                    Lists = table.Column<string>(type: "TEXT", nullable: false),
                    KeepUnfinishedDays = table.Column<int>(type: "INTEGER", nullable: false),
                    KeepClientsMonths = table.Column<int>(type: "INTEGER", nullable: true),
                    FirstCallMinutes = table.Column<int>(type: "INTEGER", nullable: false),
                    DaysLookedAt = table.Column<string>(type: "TEXT", nullable: true),
                    IsDemo = table.Column<bool>(type: "INTEGER", nullable: false),
                    Smtp = table.Column<string>(type: "TEXT", nullable: true),
                    Imap = table.Column<string>(type: "TEXT", nullable: true),
                    ClockAheadSeconds = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Businesses", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Businesses_BrandPictures_LogoHash",
                        column: x => x.LogoHash,
                        principalTable: "BrandPictures",
                        principalColumn: "Hash",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "ClientImportFiles",
                columns: table => new
                {
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Table = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientImportFiles", x => x.ImportId);
                    table.ForeignKey(
                        name: "FK_ClientImportFiles_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Clients",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: true),
                    EmailKey = table.Column<string>(type: "TEXT", nullable: true),
                    Standing = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<long>(type: "INTEGER", nullable: false),
                    MergedIntoId = table.Column<Guid>(type: "TEXT", nullable: true),
                    EraseOn = table.Column<string>(type: "TEXT", nullable: true),
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: true),
                    AlwaysComesIn = table.Column<bool>(type: "INTEGER", nullable: false),
                    IsAside = table.Column<bool>(type: "INTEGER", nullable: false),
                    SortName = table.Column<string>(type: "TEXT", nullable: false),
                    IsUnindexed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Clients", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Clients_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Clients_Clients_MergedIntoId",
                        column: x => x.MergedIntoId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BuiltInTexts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Wording = table.Column<string>(type: "TEXT", nullable: false),
                    Message = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BuiltInTexts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BuiltInTexts_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "FormVersions",
                columns: table => new
                {
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                    Published = table.Column<long>(type: "INTEGER", nullable: false),
                    PublishedBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FormVersions", x => new { x.FormId, x.Number });
                    table.ForeignKey(
                        name: "FK_FormVersions_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ReopenSubscriptions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    EmailKey = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReopenSubscriptions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ReopenSubscriptions_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ScreeningVersions",
                columns: table => new
                {
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    Rules = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<long>(type: "INTEGER", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ScreeningVersions", x => new { x.FormId, x.Number });
                    table.ForeignKey(
                        name: "FK_ScreeningVersions_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "LookUpLines",
                columns: table => new
                {
                    ListId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    Cells = table.Column<string>(type: "TEXT", nullable: false),
                    Folded = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LookUpLines", x => new { x.ListId, x.Key });
                    table.ForeignKey(
                        name: "FK_LookUpLines_LookUpLists_ListId",
                        column: x => x.ListId,
                        principalTable: "LookUpLists",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "FollowThroughVersions",
                columns: table => new
                {
                    FollowThroughId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<long>(type: "INTEGER", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FollowThroughVersions", x => new { x.FollowThroughId, x.Number });
                    table.ForeignKey(
                        name: "FK_FollowThroughVersions_StoredFollowThroughs_FollowThroughId",
                        column: x => x.FollowThroughId,
                        principalTable: "StoredFollowThroughs",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientKeys",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientKeys", x => new { x.ClientId, x.Key });
                    table.ForeignKey(
                        name: "FK_ClientKeys_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientMerges",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    KeptId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OtherId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Memory = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Split = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientMerges", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientMerges_Clients_KeptId",
                        column: x => x.KeptId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientMerges_Clients_OtherId",
                        column: x => x.OtherId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientPairs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OneId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OtherId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Likeness = table.Column<string>(type: "TEXT", nullable: false),
                    AreTwo = table.Column<long>(type: "INTEGER", nullable: true),
                    DecidedBy = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientPairs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientPairs_Clients_OneId",
                        column: x => x.OneId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientPairs_Clients_OtherId",
                        column: x => x.OtherId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientSearchRows",
                columns: table => new
                {
                    Row = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientSearchRows", x => x.Row);
                    table.ForeignKey(
                        name: "FK_ClientSearchRows_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientTags",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Tag = table.Column<string>(type: "TEXT", nullable: false),
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientTags", x => new { x.ClientId, x.Tag });
                    table.ForeignKey(
                        name: "FK_ClientTags_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_ClientTags_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OutgoingMail",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EffectKey = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    MessageId = table.Column<string>(type: "TEXT", nullable: false),
                    InReplyTo = table.Column<string>(type: "TEXT", nullable: true),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    To = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Formatted = table.Column<string>(type: "TEXT", nullable: true),
                    Enclosed = table.Column<string>(type: "TEXT", nullable: true),
                    Automatic = table.Column<bool>(type: "INTEGER", nullable: false),
                    Unsubscribe = table.Column<string>(type: "TEXT", nullable: true),
                    Written = table.Column<long>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Tries = table.Column<int>(type: "INTEGER", nullable: false),
                    NextTry = table.Column<long>(type: "INTEGER", nullable: false),
                    LastFailure = table.Column<string>(type: "TEXT", nullable: true),
                    Held = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OutgoingMail", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OutgoingMail_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "PracticeMail",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    MessageId = table.Column<string>(type: "TEXT", nullable: false),
                    InReplyTo = table.Column<string>(type: "TEXT", nullable: true),
                    Incoming = table.Column<bool>(type: "INTEGER", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    To = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Formatted = table.Column<string>(type: "TEXT", nullable: true),
                    Enclosed = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeMail", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PracticeMail_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "PracticeNotes",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EffectKey = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Phone = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeNotes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PracticeNotes_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Projects",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Opened = table.Column<long>(type: "INTEGER", nullable: false),
                    Stage = table.Column<string>(type: "TEXT", nullable: false),
                    ParkedUntil = table.Column<string>(type: "TEXT", nullable: true),
                    LostReason = table.Column<string>(type: "TEXT", nullable: true),
                    LooksAfterId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Closed = table.Column<long>(type: "INTEGER", nullable: true),
                    IsLatest = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Projects", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Projects_AspNetUsers_LooksAfterId",
                        column: x => x.LooksAfterId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Projects_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Projects_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "UnsubscribeLinks",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Sealed = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_UnsubscribeLinks", x => x.ClientId);
                    table.ForeignKey(
                        name: "FK_UnsubscribeLinks_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "WebhookCalls",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    WebhookId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EffectKey = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Body = table.Column<string>(type: "TEXT", nullable: false),
                    Written = table.Column<long>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    NextTry = table.Column<long>(type: "INTEGER", nullable: true),
                    Counted = table.Column<int>(type: "INTEGER", nullable: false),
                    Tries = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WebhookCalls", x => x.Id);
                    table.ForeignKey(
                        name: "FK_WebhookCalls_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_WebhookCalls_Webhooks_WebhookId",
                        column: x => x.WebhookId,
                        principalTable: "Webhooks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SavedDrafts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    SendKey = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    Page = table.Column<string>(type: "TEXT", nullable: false),
                    Answers = table.Column<string>(type: "TEXT", nullable: true),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false),
                    MailedTo = table.Column<string>(type: "TEXT", nullable: true),
                    MayFollowUp = table.Column<bool>(type: "INTEGER", nullable: false),
                    FollowedUp = table.Column<long>(type: "INTEGER", nullable: true),
                    Saved = table.Column<long>(type: "INTEGER", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false),
                    Ended = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SavedDrafts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_SavedDrafts_FormVersions_FormId_FormVersion",
                        columns: x => new { x.FormId, x.FormVersion },
                        principalTable: "FormVersions",
                        principalColumns: new[] { "FormId", "Number" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "IncomingMail",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    MessageId = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    AnswersId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_IncomingMail", x => x.Id);
                    table.ForeignKey(
                        name: "FK_IncomingMail_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_IncomingMail_OutgoingMail_AnswersId",
                        column: x => x.AnswersId,
                        principalTable: "OutgoingMail",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "ClientTasks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    IsDate = table.Column<bool>(type: "INTEGER", nullable: false),
                    On = table.Column<string>(type: "TEXT", nullable: true),
                    ForId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Done = table.Column<long>(type: "INTEGER", nullable: true),
                    DoneBy = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientTasks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientTasks_AspNetUsers_ForId",
                        column: x => x.ForId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_ClientTasks_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientTasks_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ProjectWatchers",
                columns: table => new
                {
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: false),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ProjectWatchers", x => new { x.ProjectId, x.UserId });
                    table.ForeignKey(
                        name: "FK_ProjectWatchers_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ProjectWatchers_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "TeamChat",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    SavedDraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TeamChat", x => x.Id);
                    table.ForeignKey(
                        name: "FK_TeamChat_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_TeamChat_SavedDrafts_SavedDraftId",
                        column: x => x.SavedDraftId,
                        principalTable: "SavedDrafts",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Differences",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Field = table.Column<string>(type: "TEXT", nullable: false),
                    Question = table.Column<string>(type: "TEXT", nullable: false),
                    Theirs = table.Column<string>(type: "TEXT", nullable: false),
                    Ours = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Corrected = table.Column<string>(type: "TEXT", nullable: true),
                    CorrectedBy = table.Column<string>(type: "TEXT", nullable: true),
                    SettledAt = table.Column<long>(type: "INTEGER", nullable: true),
                    SettledBy = table.Column<string>(type: "TEXT", nullable: true),
                    Settlement = table.Column<string>(type: "TEXT", nullable: true),
                    WrittenValueId = table.Column<Guid>(type: "TEXT", nullable: true),
                    WrittenNoteId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Differences", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Differences_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Differences_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Events",
                columns: table => new
                {
                    Seq = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Rings = table.Column<bool>(type: "INTEGER", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: true),
                    RunId = table.Column<Guid>(type: "TEXT", nullable: true),
                    MailId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Events", x => x.Seq);
                    table.ForeignKey(
                        name: "FK_Events_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Events_OutgoingMail_MailId",
                        column: x => x.MailId,
                        principalTable: "OutgoingMail",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Events_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "FieldValues",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Field = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: true),
                    Before = table.Column<string>(type: "TEXT", nullable: true),
                    IsCurrent = table.Column<bool>(type: "INTEGER", nullable: false),
                    IsListed = table.Column<bool>(type: "INTEGER", nullable: false),
                    OrderText = table.Column<string>(type: "TEXT", nullable: true),
                    OrderNumber = table.Column<double>(type: "REAL", nullable: true),
                    Origin = table.Column<string>(type: "TEXT", nullable: false),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: true),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: true),
                    FormVersion = table.Column<int>(type: "INTEGER", nullable: true),
                    Question = table.Column<string>(type: "TEXT", nullable: true),
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FieldValues", x => x.Id);
                    table.ForeignKey(
                        name: "FK_FieldValues_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_FieldValues_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_FieldValues_FormVersions_FormId_FormVersion",
                        columns: x => new { x.FormId, x.FormVersion },
                        principalTable: "FormVersions",
                        principalColumns: new[] { "FormId", "Number" });
                    table.ForeignKey(
                        name: "FK_FieldValues_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Inquiries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    SubmissionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    ScreeningVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Received = table.Column<long>(type: "INTEGER", nullable: false),
                    Fit = table.Column<string>(type: "TEXT", nullable: true),
                    Verdict = table.Column<string>(type: "TEXT", nullable: false),
                    About = table.Column<string>(type: "TEXT", nullable: false),
                    Score = table.Column<int>(type: "INTEGER", nullable: false),
                    Flags = table.Column<int>(type: "INTEGER", nullable: false),
                    SortName = table.Column<string>(type: "TEXT", nullable: false),
                    Service = table.Column<string>(type: "TEXT", nullable: true),
                    Source = table.Column<string>(type: "TEXT", nullable: true),
                    Budget = table.Column<string>(type: "TEXT", nullable: true),
                    BudgetAmount = table.Column<double>(type: "REAL", nullable: true),
                    Stage = table.Column<string>(type: "TEXT", nullable: false),
                    LooksAfterId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Need = table.Column<int>(type: "INTEGER", nullable: false),
                    Urgency = table.Column<long>(type: "INTEGER", nullable: false),
                    Aside = table.Column<string>(type: "TEXT", nullable: true),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenDownBy = table.Column<string>(type: "TEXT", nullable: true),
                    CameFrom = table.Column<string>(type: "TEXT", nullable: true),
                    KnownBefore = table.Column<bool>(type: "INTEGER", nullable: false),
                    PromisedBy = table.Column<long>(type: "INTEGER", nullable: true),
                    PromiseClock = table.Column<string>(type: "TEXT", nullable: false),
                    PromiseHours = table.Column<int>(type: "INTEGER", nullable: false),
                    PromiseStopped = table.Column<long>(type: "INTEGER", nullable: true),
                    CallAsked = table.Column<long>(type: "INTEGER", nullable: true),
                    WroteBack = table.Column<long>(type: "INTEGER", nullable: true),
                    Closed = table.Column<long>(type: "INTEGER", nullable: true),
                    WantedMonth = table.Column<string>(type: "TEXT", nullable: true),
                    Waits = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Inquiries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Inquiries_AspNetUsers_LooksAfterId",
                        column: x => x.LooksAfterId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Inquiries_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Inquiries_FormVersions_FormId_FormVersion",
                        columns: x => new { x.FormId, x.FormVersion },
                        principalTable: "FormVersions",
                        principalColumns: new[] { "FormId", "Number" });
                    table.ForeignKey(
                        name: "FK_Inquiries_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Inquiries_ScreeningVersions_FormId_ScreeningVersion",
                        columns: x => new { x.FormId, x.ScreeningVersion },
                        principalTable: "ScreeningVersions",
                        principalColumns: new[] { "FormId", "Number" });
                });

            migrationBuilder.CreateTable(
                name: "LaterVerdicts",
                columns: table => new
                {
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ScreeningVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    Verdict = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LaterVerdicts", x => new { x.InquiryId, x.ScreeningVersion });
                    table.ForeignKey(
                        name: "FK_LaterVerdicts_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Notes",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Heading = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: true),
                    IsPinned = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Notes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Notes_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Notes_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Notes_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Notes_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OverruledFits",
                columns: table => new
                {
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Fit = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OverruledFits", x => x.InquiryId);
                    table.ForeignKey(
                        name: "FK_OverruledFits_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Runs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FollowThroughId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FollowThroughNumber = table.Column<int>(type: "INTEGER", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: true),
                    SavedDraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    DraftRevision = table.Column<int>(type: "INTEGER", nullable: true),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Drafts = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    NextMoment = table.Column<long>(type: "INTEGER", nullable: true),
                    NodStatus = table.Column<string>(type: "TEXT", nullable: true),
                    Tries = table.Column<int>(type: "INTEGER", nullable: false),
                    Failure = table.Column<string>(type: "TEXT", nullable: true),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Runs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Runs_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Runs_FollowThroughVersions_FollowThroughId_FollowThroughNumber",
                        columns: x => new { x.FollowThroughId, x.FollowThroughNumber },
                        principalTable: "FollowThroughVersions",
                        principalColumns: new[] { "FollowThroughId", "Number" });
                    table.ForeignKey(
                        name: "FK_Runs_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Runs_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Runs_SavedDrafts_SavedDraftId",
                        column: x => x.SavedDraftId,
                        principalTable: "SavedDrafts",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Tellings",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Due = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Tellings", x => new { x.UserId, x.InquiryId });
                    table.ForeignKey(
                        name: "FK_Tellings_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Tellings_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "NoteRevisions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    NoteId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_NoteRevisions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_NoteRevisions_Notes_NoteId",
                        column: x => x.NoteId,
                        principalTable: "Notes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PersonalLinks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    GivenName = table.Column<string>(type: "TEXT", nullable: false),
                    FamilyName = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    MadeBy = table.Column<string>(type: "TEXT", nullable: false),
                    Made = table.Column<long>(type: "INTEGER", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false),
                    Opened = table.Column<long>(type: "INTEGER", nullable: true),
                    SubmissionId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Used = table.Column<long>(type: "INTEGER", nullable: true),
                    CodeHash = table.Column<string>(type: "TEXT", nullable: true),
                    CodeSent = table.Column<long>(type: "INTEGER", nullable: true),
                    CodeTries = table.Column<int>(type: "INTEGER", nullable: false),
                    PassHash = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PersonalLinks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PersonalLinks_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_PersonalLinks_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Submissions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    SendKey = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Answers = table.Column<string>(type: "TEXT", nullable: false),
                    SendOff = table.Column<string>(type: "TEXT", nullable: false),
                    IsErased = table.Column<bool>(type: "INTEGER", nullable: false),
                    ReceiptHash = table.Column<string>(type: "TEXT", nullable: false),
                    ReceiptSealed = table.Column<string>(type: "TEXT", nullable: false),
                    PersonalLinkId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ProofHash = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Submissions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Submissions_FormVersions_FormId_FormVersion",
                        columns: x => new { x.FormId, x.FormVersion },
                        principalTable: "FormVersions",
                        principalColumns: new[] { "FormId", "Number" });
                    table.ForeignKey(
                        name: "FK_Submissions_PersonalLinks_PersonalLinkId",
                        column: x => x.PersonalLinkId,
                        principalTable: "PersonalLinks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "StoredFiles",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StoredAs = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    Group = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Question = table.Column<string>(type: "TEXT", nullable: true),
                    SendKey = table.Column<Guid>(type: "TEXT", nullable: true),
                    SubmissionId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StoredFiles", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StoredFiles_Forms_FormId",
                        column: x => x.FormId,
                        principalTable: "Forms",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_StoredFiles_Submissions_SubmissionId",
                        column: x => x.SubmissionId,
                        principalTable: "Submissions",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "RoleNameIndex",
                table: "AspNetRoles",
                column: "NormalizedName",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "AspNetUsers",
                column: "NormalizedEmail");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "NormalizedUserName",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BuiltInTexts_FormId_Kind",
                table: "BuiltInTexts",
                columns: new[] { "FormId", "Kind" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ClientKeys_Key",
                table: "ClientKeys",
                column: "Key");

            migrationBuilder.CreateIndex(
                name: "IX_ClientMerges_KeptId",
                table: "ClientMerges",
                column: "KeptId");

            migrationBuilder.CreateIndex(
                name: "IX_ClientPairs_OneId_OtherId",
                table: "ClientPairs",
                columns: new[] { "OneId", "OtherId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ClientPairs_OtherId",
                table: "ClientPairs",
                column: "OtherId");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_EmailKey",
                table: "Clients",
                column: "EmailKey");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_EraseOn",
                table: "Clients",
                column: "EraseOn",
                filter: "\"EraseOn\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_ImportId",
                table: "Clients",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_IsUnindexed",
                table: "Clients",
                column: "IsUnindexed",
                filter: "\"IsUnindexed\"");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId",
                filter: "\"MergedIntoId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_Since",
                table: "Clients",
                column: "Since");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_SortName",
                table: "Clients",
                column: "SortName");

            migrationBuilder.CreateIndex(
                name: "IX_ClientSearchRows_ClientId",
                table: "ClientSearchRows",
                column: "ClientId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ClientTags_ImportId",
                table: "ClientTags",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_ClientTags_Tag",
                table: "ClientTags",
                column: "Tag");

            migrationBuilder.CreateIndex(
                name: "IX_ClientTasks_ClientId",
                table: "ClientTasks",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_ClientTasks_On",
                table: "ClientTasks",
                column: "On",
                filter: "\"Done\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Differences_ClientId",
                table: "Differences",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Differences_InquiryId",
                table: "Differences",
                column: "InquiryId");

            migrationBuilder.CreateIndex(
                name: "IX_Events_ClientId",
                table: "Events",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Events_Kind_Seq",
                table: "Events",
                columns: new[] { "Kind", "Seq" });

            migrationBuilder.CreateIndex(
                name: "IX_Events_Rings_Seq",
                table: "Events",
                columns: new[] { "Rings", "Seq" });

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_ClientId",
                table: "FieldValues",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_Field_OrderNumber_ClientId",
                table: "FieldValues",
                columns: new[] { "Field", "OrderNumber", "ClientId" },
                filter: "\"IsListed\" AND \"OrderNumber\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_Field_OrderText_ClientId",
                table: "FieldValues",
                columns: new[] { "Field", "OrderText", "ClientId" },
                filter: "\"IsListed\" AND \"OrderText\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_ImportId",
                table: "FieldValues",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Forms_LinkHash",
                table: "Forms",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_IncomingMail_ClientId",
                table: "IncomingMail",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_IncomingMail_MessageId",
                table: "IncomingMail",
                column: "MessageId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_BudgetAmount_Id",
                table: "Inquiries",
                columns: new[] { "BudgetAmount", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_ClientId",
                table: "Inquiries",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Fit_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Fit", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_FormId_WantedMonth",
                table: "Inquiries",
                columns: new[] { "FormId", "WantedMonth" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_LooksAfterId_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "LooksAfterId", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Received_Id",
                table: "Inquiries",
                columns: new[] { "Received", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Score_Id",
                table: "Inquiries",
                columns: new[] { "Score", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Service_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Service", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_SortName_Id",
                table: "Inquiries",
                columns: new[] { "SortName", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Source_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Source", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Stage_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Stage", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_SubmissionId",
                table: "Inquiries",
                column: "SubmissionId");

            migrationBuilder.CreateIndex(
                name: "IX_Invites_LinkHash",
                table: "Invites",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_NoteRevisions_NoteId",
                table: "NoteRevisions",
                column: "NoteId");

            migrationBuilder.CreateIndex(
                name: "IX_Notes_ClientId",
                table: "Notes",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Notes_ImportId",
                table: "Notes",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_OutgoingMail_EffectKey",
                table: "OutgoingMail",
                column: "EffectKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_OutgoingMail_State_NextTry",
                table: "OutgoingMail",
                columns: new[] { "State", "NextTry" });

            migrationBuilder.CreateIndex(
                name: "IX_OutgoingMail_To_Written",
                table: "OutgoingMail",
                columns: new[] { "To", "Written" },
                filter: "\"Automatic\"");

            migrationBuilder.CreateIndex(
                name: "IX_PersonalLinks_LinkHash",
                table: "PersonalLinks",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PracticeMail_MessageId",
                table: "PracticeMail",
                column: "MessageId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PracticeNotes_ClientId",
                table: "PracticeNotes",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_PracticeNotes_EffectKey",
                table: "PracticeNotes",
                column: "EffectKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Projects_ClientId",
                table: "Projects",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Latest",
                table: "Projects",
                column: "ClientId",
                unique: true,
                filter: "\"IsLatest\"");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_ParkedUntil",
                table: "Projects",
                column: "ParkedUntil",
                filter: "\"ParkedUntil\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_ReopenSubscriptions_FormId_EmailKey",
                table: "ReopenSubscriptions",
                columns: new[] { "FormId", "EmailKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Runs_ClientId",
                table: "Runs",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_FollowThroughId",
                table: "Runs",
                column: "FollowThroughId",
                filter: "\"Active\"");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_NextMoment",
                table: "Runs",
                column: "NextMoment");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_NodStatus",
                table: "Runs",
                column: "NodStatus",
                filter: "\"NodStatus\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_SavedDraftId",
                table: "Runs",
                column: "SavedDraftId",
                filter: "\"SavedDraftId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_SavedDrafts_FormId_SendKey",
                table: "SavedDrafts",
                columns: new[] { "FormId", "SendKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SavedDrafts_GoodUntil",
                table: "SavedDrafts",
                column: "GoodUntil");

            migrationBuilder.CreateIndex(
                name: "IX_SavedDrafts_LinkHash",
                table: "SavedDrafts",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_StoredFiles_SendKey",
                table: "StoredFiles",
                column: "SendKey");

            migrationBuilder.CreateIndex(
                name: "IX_StoredFiles_SubmissionId",
                table: "StoredFiles",
                column: "SubmissionId");

            migrationBuilder.CreateIndex(
                name: "IX_Submissions_FormId_SendKey",
                table: "Submissions",
                columns: new[] { "FormId", "SendKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Submissions_ProofHash",
                table: "Submissions",
                column: "ProofHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Submissions_ReceiptHash",
                table: "Submissions",
                column: "ReceiptHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_TeamChat_ClientId",
                table: "TeamChat",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_TeamChat_SavedDraftId",
                table: "TeamChat",
                column: "SavedDraftId");

            migrationBuilder.CreateIndex(
                name: "IX_Tellings_Due",
                table: "Tellings",
                column: "Due");

            migrationBuilder.CreateIndex(
                name: "IX_UnsubscribeLinks_Hash",
                table: "UnsubscribeLinks",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_WebhookCalls_ClientId",
                table: "WebhookCalls",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_WebhookCalls_EffectKey",
                table: "WebhookCalls",
                column: "EffectKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_WebhookCalls_NextTry",
                table: "WebhookCalls",
                column: "NextTry",
                filter: "\"NextTry\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_WebhookCalls_WebhookId_Written",
                table: "WebhookCalls",
                columns: new[] { "WebhookId", "Written" });

            migrationBuilder.AddForeignKey(
                name: "FK_Differences_FieldValues_WrittenValueId",
                table: "Differences",
                column: "WrittenValueId",
                principalTable: "FieldValues",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_Differences_Inquiries_InquiryId",
                table: "Differences",
                column: "InquiryId",
                principalTable: "Inquiries",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "FK_Differences_Notes_WrittenNoteId",
                table: "Differences",
                column: "WrittenNoteId",
                principalTable: "Notes",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_Events_Inquiries_InquiryId",
                table: "Events",
                column: "InquiryId",
                principalTable: "Inquiries",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_Events_Runs_RunId",
                table: "Events",
                column: "RunId",
                principalTable: "Runs",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_FieldValues_Inquiries_InquiryId",
                table: "FieldValues",
                column: "InquiryId",
                principalTable: "Inquiries",
                principalColumn: "Id");

            migrationBuilder.AddForeignKey(
                name: "FK_Inquiries_Submissions_SubmissionId",
                table: "Inquiries",
                column: "SubmissionId",
                principalTable: "Submissions",
                principalColumn: "Id");

            migrationBuilder.AddForeignKey(
                name: "FK_PersonalLinks_Submissions_SubmissionId",
                table: "PersonalLinks",
                column: "SubmissionId",
                principalTable: "Submissions",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);

            // The words of everybody's records; which row is whose stands in ClientSearchRows.
            migrationBuilder.Sql(
                "CREATE VIRTUAL TABLE ClientWords USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3')");
        }
    }
}
