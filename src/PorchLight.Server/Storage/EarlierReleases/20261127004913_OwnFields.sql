BEGIN TRANSACTION;
ALTER TABLE "Projects" ADD "IsLatest" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Notes" ADD "IsPinned" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "FieldValues" ADD "IsCurrent" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "FieldValues" ADD "IsListed" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "FieldValues" ADD "OrderNumber" REAL NULL;

ALTER TABLE "FieldValues" ADD "OrderText" TEXT NULL;

ALTER TABLE "FieldValues" ADD "Origin" TEXT NOT NULL DEFAULT 'Inquiry';

ALTER TABLE "Differences" ADD "SettledAt" INTEGER NULL;

ALTER TABLE "Differences" ADD "SettledBy" TEXT NULL;

ALTER TABLE "Differences" ADD "Settlement" TEXT NULL;

ALTER TABLE "Differences" ADD "WrittenNoteId" TEXT NULL;

ALTER TABLE "Differences" ADD "WrittenValueId" TEXT NULL;

ALTER TABLE "Clients" ADD "IsUnindexed" INTEGER NOT NULL DEFAULT 1;

ALTER TABLE "Clients" ADD "SortName" TEXT NOT NULL DEFAULT '';

UPDATE Projects SET IsLatest = Id =
    (SELECT p.Id FROM Projects AS p WHERE p.ClientId = Projects.ClientId ORDER BY p.Opened DESC, p.Id DESC LIMIT 1);

CREATE VIRTUAL TABLE ClientWords USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');

CREATE TABLE "ClientSearchRows" (
    "Row" INTEGER NOT NULL CONSTRAINT "PK_ClientSearchRows" PRIMARY KEY AUTOINCREMENT,
    "ClientId" TEXT NOT NULL,
    CONSTRAINT "FK_ClientSearchRows_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "ClientTags" (
    "ClientId" TEXT NOT NULL,
    "Tag" TEXT NOT NULL,
    CONSTRAINT "PK_ClientTags" PRIMARY KEY ("ClientId", "Tag"),
    CONSTRAINT "FK_ClientTags_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "Fields" (
    "Key" TEXT NOT NULL CONSTRAINT "PK_Fields" PRIMARY KEY,
    "Place" INTEGER NOT NULL,
    "Field" TEXT NOT NULL
);

CREATE TABLE "NoteRevisions" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_NoteRevisions" PRIMARY KEY,
    "NoteId" TEXT NOT NULL,
    "Text" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_NoteRevisions_Notes_NoteId" FOREIGN KEY ("NoteId") REFERENCES "Notes" ("Id") ON DELETE CASCADE
);

CREATE TABLE "SavedViews" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_SavedViews" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Query" TEXT NOT NULL
);

CREATE UNIQUE INDEX "IX_Projects_Latest" ON "Projects" ("ClientId") WHERE "IsLatest";

CREATE INDEX "IX_FieldValues_Field_OrderNumber_ClientId" ON "FieldValues" ("Field", "OrderNumber", "ClientId") WHERE "IsListed" AND "OrderNumber" IS NOT NULL;

CREATE INDEX "IX_FieldValues_Field_OrderText_ClientId" ON "FieldValues" ("Field", "OrderText", "ClientId") WHERE "IsListed" AND "OrderText" IS NOT NULL;

CREATE INDEX "IX_Differences_ClientId" ON "Differences" ("ClientId");

CREATE INDEX "IX_Clients_IsUnindexed" ON "Clients" ("IsUnindexed") WHERE "IsUnindexed";

CREATE INDEX "IX_Clients_Since" ON "Clients" ("Since");

CREATE INDEX "IX_Clients_SortName" ON "Clients" ("SortName");

CREATE UNIQUE INDEX "IX_ClientSearchRows_ClientId" ON "ClientSearchRows" ("ClientId");

CREATE INDEX "IX_ClientTags_Tag" ON "ClientTags" ("Tag");

CREATE INDEX "IX_NoteRevisions_NoteId" ON "NoteRevisions" ("NoteId");

CREATE TABLE "ef_temp_Notes" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Notes" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Heading" TEXT NOT NULL,
    "InquiryId" TEXT NULL,
    "IsPinned" INTEGER NOT NULL,
    "ProjectId" TEXT NULL,
    "Text" TEXT NOT NULL,
    CONSTRAINT "FK_Notes_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Notes_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id"),
    CONSTRAINT "FK_Notes_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Notes" ("Id", "At", "By", "ClientId", "Heading", "InquiryId", "IsPinned", "ProjectId", "Text")
SELECT "Id", "At", "By", "ClientId", "Heading", "InquiryId", "IsPinned", "ProjectId", "Text"
FROM "Notes";

CREATE TABLE "ef_temp_FieldValues" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_FieldValues" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "Before" TEXT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Field" TEXT NOT NULL,
    "FormId" TEXT NULL,
    "FormVersion" INTEGER NULL,
    "InquiryId" TEXT NULL,
    "IsCurrent" INTEGER NOT NULL,
    "IsListed" INTEGER NOT NULL,
    "OrderNumber" REAL NULL,
    "OrderText" TEXT NULL,
    "Origin" TEXT NOT NULL,
    "ProjectId" TEXT NULL,
    "Question" TEXT NULL,
    "Value" TEXT NULL,
    CONSTRAINT "FK_FieldValues_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_FieldValues_FormVersions_FormId_FormVersion" FOREIGN KEY ("FormId", "FormVersion") REFERENCES "FormVersions" ("FormId", "Number"),
    CONSTRAINT "FK_FieldValues_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id"),
    CONSTRAINT "FK_FieldValues_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_FieldValues" ("Id", "At", "Before", "By", "ClientId", "Field", "FormId", "FormVersion", "InquiryId", "IsCurrent", "IsListed", "OrderNumber", "OrderText", "Origin", "ProjectId", "Question", "Value")
SELECT "Id", "At", "Before", "By", "ClientId", "Field", "FormId", "FormVersion", "InquiryId", "IsCurrent", "IsListed", "OrderNumber", "OrderText", "Origin", "ProjectId", "Question", "Value"
FROM "FieldValues";

CREATE TABLE "ef_temp_Differences" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Differences" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Field" TEXT NOT NULL,
    "InquiryId" TEXT NOT NULL,
    "Ours" TEXT NULL,
    "ProjectId" TEXT NOT NULL,
    "Question" TEXT NOT NULL,
    "SettledAt" INTEGER NULL,
    "SettledBy" TEXT NULL,
    "Settlement" TEXT NULL,
    "Theirs" TEXT NOT NULL,
    "WrittenNoteId" TEXT NULL,
    "WrittenValueId" TEXT NULL,
    CONSTRAINT "FK_Differences_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Differences_FieldValues_WrittenValueId" FOREIGN KEY ("WrittenValueId") REFERENCES "FieldValues" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Differences_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Differences_Notes_WrittenNoteId" FOREIGN KEY ("WrittenNoteId") REFERENCES "Notes" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Differences_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Differences" ("Id", "At", "ClientId", "Field", "InquiryId", "Ours", "ProjectId", "Question", "SettledAt", "SettledBy", "Settlement", "Theirs", "WrittenNoteId", "WrittenValueId")
SELECT "Id", "At", "ClientId", "Field", "InquiryId", "Ours", "ProjectId", "Question", "SettledAt", "SettledBy", "Settlement", "Theirs", "WrittenNoteId", "WrittenValueId"
FROM "Differences";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Notes";

ALTER TABLE "ef_temp_Notes" RENAME TO "Notes";

DROP TABLE "FieldValues";

ALTER TABLE "ef_temp_FieldValues" RENAME TO "FieldValues";

DROP TABLE "Differences";

ALTER TABLE "ef_temp_Differences" RENAME TO "Differences";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Notes_ClientId" ON "Notes" ("ClientId");

CREATE INDEX "IX_FieldValues_ClientId" ON "FieldValues" ("ClientId");

CREATE INDEX "IX_FieldValues_Field_OrderNumber_ClientId" ON "FieldValues" ("Field", "OrderNumber", "ClientId") WHERE "IsListed" AND "OrderNumber" IS NOT NULL;

CREATE INDEX "IX_FieldValues_Field_OrderText_ClientId" ON "FieldValues" ("Field", "OrderText", "ClientId") WHERE "IsListed" AND "OrderText" IS NOT NULL;

CREATE INDEX "IX_Differences_ClientId" ON "Differences" ("ClientId");

CREATE INDEX "IX_Differences_InquiryId" ON "Differences" ("InquiryId");

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127004913_OwnFields', '10.0.12');
