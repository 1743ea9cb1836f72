BEGIN TRANSACTION;
CREATE TABLE "StoredFollowThroughs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_StoredFollowThroughs" PRIMARY KEY,
    "Number" INTEGER NOT NULL,
    "IsOn" INTEGER NOT NULL,
    "Draft" TEXT NULL,
    "Archived" INTEGER NULL
);

INSERT INTO "StoredFollowThroughs" ("Id", "Number", "IsOn")
SELECT "Id", "Number", "Live" FROM "FollowThroughs" AS one
WHERE "Number" = (SELECT MAX("Number") FROM "FollowThroughs" AS other WHERE other."Id" = one."Id");

CREATE TABLE "FollowThroughVersions" (
    "FollowThroughId" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "Content" TEXT NOT NULL,
    "Since" INTEGER NULL,
    "By" TEXT NULL,
    CONSTRAINT "PK_FollowThroughVersions" PRIMARY KEY ("FollowThroughId", "Number"),
    CONSTRAINT "FK_FollowThroughVersions_StoredFollowThroughs_FollowThroughId" FOREIGN KEY ("FollowThroughId") REFERENCES "StoredFollowThroughs" ("Id") ON DELETE CASCADE
);

INSERT INTO "FollowThroughVersions" ("FollowThroughId", "Number", "Content")
SELECT "Id", "Number", "Content" FROM "FollowThroughs";

ALTER TABLE "Runs" ADD "Failure" TEXT NULL;

ALTER TABLE "Runs" ADD "Tries" INTEGER NOT NULL DEFAULT 0;

CREATE INDEX "IX_Runs_FollowThroughId" ON "Runs" ("FollowThroughId") WHERE "Active";

CREATE TABLE "ef_temp_Runs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Runs" PRIMARY KEY,
    "Active" INTEGER NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Drafts" TEXT NOT NULL,
    "Failure" TEXT NULL,
    "FollowThroughId" TEXT NOT NULL,
    "FollowThroughNumber" INTEGER NOT NULL,
    "InquiryId" TEXT NULL,
    "NextMoment" INTEGER NULL,
    "ProjectId" TEXT NOT NULL,
    "Revision" INTEGER NOT NULL,
    "State" TEXT NOT NULL,
    "Tries" INTEGER NOT NULL,
    CONSTRAINT "FK_Runs_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Runs_FollowThroughVersions_FollowThroughId_FollowThroughNumber" FOREIGN KEY ("FollowThroughId", "FollowThroughNumber") REFERENCES "FollowThroughVersions" ("FollowThroughId", "Number"),
    CONSTRAINT "FK_Runs_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Runs_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Runs" ("Id", "Active", "ClientId", "Drafts", "Failure", "FollowThroughId", "FollowThroughNumber", "InquiryId", "NextMoment", "ProjectId", "Revision", "State", "Tries")
SELECT "Id", "Active", "ClientId", "Drafts", "Failure", "FollowThroughId", "FollowThroughNumber", "InquiryId", "NextMoment", "ProjectId", "Revision", "State", "Tries"
FROM "Runs";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Runs";

ALTER TABLE "ef_temp_Runs" RENAME TO "Runs";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Runs_ClientId" ON "Runs" ("ClientId");

CREATE INDEX "IX_Runs_FollowThroughId" ON "Runs" ("FollowThroughId") WHERE "Active";

CREATE INDEX "IX_Runs_NextMoment" ON "Runs" ("NextMoment");

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127144050_FollowThroughsWorkedOn', '10.0.12');
