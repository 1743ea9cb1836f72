BEGIN TRANSACTION;
ALTER TABLE "Notes" ADD "ImportId" TEXT NULL;

ALTER TABLE "FieldValues" ADD "ImportId" TEXT NULL;

ALTER TABLE "ClientTags" ADD "ImportId" TEXT NULL;

ALTER TABLE "Clients" ADD "ImportId" TEXT NULL;

CREATE TABLE "ClientImports" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_ClientImports" PRIMARY KEY,
    "FileName" TEXT NOT NULL,
    "Encoding" TEXT NOT NULL,
    "Plan" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "ByUser" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "Lines" INTEGER NOT NULL,
    "WorkedThrough" INTEGER NOT NULL,
    "Made" INTEGER NOT NULL,
    "Filled" INTEGER NOT NULL,
    "LeftOut" INTEGER NOT NULL,
    "Stayed" INTEGER NOT NULL
);

CREATE TABLE "ClientImportFiles" (
    "ImportId" TEXT NOT NULL CONSTRAINT "PK_ClientImportFiles" PRIMARY KEY,
    "Table" BLOB NOT NULL,
    CONSTRAINT "FK_ClientImportFiles_ClientImports_ImportId" FOREIGN KEY ("ImportId") REFERENCES "ClientImports" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_Notes_ImportId" ON "Notes" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_FieldValues_ImportId" ON "FieldValues" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_ClientTags_ImportId" ON "ClientTags" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_Clients_ImportId" ON "Clients" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE TABLE "ef_temp_Clients" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Clients" PRIMARY KEY,
    "Email" TEXT NULL,
    "EmailKey" TEXT NULL,
    "EraseOn" TEXT NULL,
    "ImportId" TEXT NULL,
    "IsUnindexed" INTEGER NOT NULL,
    "MergedIntoId" TEXT NULL,
    "Name" TEXT NOT NULL,
    "Since" INTEGER NOT NULL,
    "SortName" TEXT NOT NULL,
    "Standing" TEXT NOT NULL,
    CONSTRAINT "FK_Clients_ClientImports_ImportId" FOREIGN KEY ("ImportId") REFERENCES "ClientImports" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Clients_Clients_MergedIntoId" FOREIGN KEY ("MergedIntoId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Clients" ("Id", "Email", "EmailKey", "EraseOn", "ImportId", "IsUnindexed", "MergedIntoId", "Name", "Since", "SortName", "Standing")
SELECT "Id", "Email", "EmailKey", "EraseOn", "ImportId", "IsUnindexed", "MergedIntoId", "Name", "Since", "SortName", "Standing"
FROM "Clients";

CREATE TABLE "ef_temp_ClientTags" (
    "ClientId" TEXT NOT NULL,
    "Tag" TEXT NOT NULL,
    "ImportId" TEXT NULL,
    CONSTRAINT "PK_ClientTags" PRIMARY KEY ("ClientId", "Tag"),
    CONSTRAINT "FK_ClientTags_ClientImports_ImportId" FOREIGN KEY ("ImportId") REFERENCES "ClientImports" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_ClientTags_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_ClientTags" ("ClientId", "Tag", "ImportId")
SELECT "ClientId", "Tag", "ImportId"
FROM "ClientTags";

CREATE TABLE "ef_temp_FieldValues" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_FieldValues" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "Before" TEXT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Field" TEXT NOT NULL,
    "FormId" TEXT NULL,
    "FormVersion" INTEGER NULL,
    "ImportId" TEXT NULL,
    "InquiryId" TEXT NULL,
    "IsCurrent" INTEGER NOT NULL,
    "IsListed" INTEGER NOT NULL,
    "OrderNumber" REAL NULL,
    "OrderText" TEXT NULL,
    "Origin" TEXT NOT NULL,
    "ProjectId" TEXT NULL,
    "Question" TEXT NULL,
    "Value" TEXT NULL,
    CONSTRAINT "FK_FieldValues_ClientImports_ImportId" FOREIGN KEY ("ImportId") REFERENCES "ClientImports" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_FieldValues_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_FieldValues_FormVersions_FormId_FormVersion" FOREIGN KEY ("FormId", "FormVersion") REFERENCES "FormVersions" ("FormId", "Number"),
    CONSTRAINT "FK_FieldValues_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id"),
    CONSTRAINT "FK_FieldValues_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_FieldValues" ("Id", "At", "Before", "By", "ClientId", "Field", "FormId", "FormVersion", "ImportId", "InquiryId", "IsCurrent", "IsListed", "OrderNumber", "OrderText", "Origin", "ProjectId", "Question", "Value")
SELECT "Id", "At", "Before", "By", "ClientId", "Field", "FormId", "FormVersion", "ImportId", "InquiryId", "IsCurrent", "IsListed", "OrderNumber", "OrderText", "Origin", "ProjectId", "Question", "Value"
FROM "FieldValues";

CREATE TABLE "ef_temp_Notes" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Notes" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Heading" TEXT NOT NULL,
    "ImportId" TEXT NULL,
    "InquiryId" TEXT NULL,
    "IsPinned" INTEGER NOT NULL,
    "ProjectId" TEXT NULL,
    "Text" TEXT NOT NULL,
    CONSTRAINT "FK_Notes_ClientImports_ImportId" FOREIGN KEY ("ImportId") REFERENCES "ClientImports" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Notes_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Notes_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id"),
    CONSTRAINT "FK_Notes_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Notes" ("Id", "At", "By", "ClientId", "Heading", "ImportId", "InquiryId", "IsPinned", "ProjectId", "Text")
SELECT "Id", "At", "By", "ClientId", "Heading", "ImportId", "InquiryId", "IsPinned", "ProjectId", "Text"
FROM "Notes";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Clients";

ALTER TABLE "ef_temp_Clients" RENAME TO "Clients";

DROP TABLE "ClientTags";

ALTER TABLE "ef_temp_ClientTags" RENAME TO "ClientTags";

DROP TABLE "FieldValues";

ALTER TABLE "ef_temp_FieldValues" RENAME TO "FieldValues";

DROP TABLE "Notes";

ALTER TABLE "ef_temp_Notes" RENAME TO "Notes";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Clients_EmailKey" ON "Clients" ("EmailKey");

CREATE INDEX "IX_Clients_EraseOn" ON "Clients" ("EraseOn") WHERE "EraseOn" IS NOT NULL;

CREATE INDEX "IX_Clients_ImportId" ON "Clients" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_Clients_IsUnindexed" ON "Clients" ("IsUnindexed") WHERE "IsUnindexed";

CREATE INDEX "IX_Clients_MergedIntoId" ON "Clients" ("MergedIntoId");

CREATE INDEX "IX_Clients_Since" ON "Clients" ("Since");

CREATE INDEX "IX_Clients_SortName" ON "Clients" ("SortName");

CREATE INDEX "IX_ClientTags_ImportId" ON "ClientTags" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_ClientTags_Tag" ON "ClientTags" ("Tag");

CREATE INDEX "IX_FieldValues_ClientId" ON "FieldValues" ("ClientId");

CREATE INDEX "IX_FieldValues_Field_OrderNumber_ClientId" ON "FieldValues" ("Field", "OrderNumber", "ClientId") WHERE "IsListed" AND "OrderNumber" IS NOT NULL;

CREATE INDEX "IX_FieldValues_Field_OrderText_ClientId" ON "FieldValues" ("Field", "OrderText", "ClientId") WHERE "IsListed" AND "OrderText" IS NOT NULL;

CREATE INDEX "IX_FieldValues_ImportId" ON "FieldValues" ("ImportId") WHERE "ImportId" IS NOT NULL;

CREATE INDEX "IX_Notes_ClientId" ON "Notes" ("ClientId");

CREATE INDEX "IX_Notes_ImportId" ON "Notes" ("ImportId") WHERE "ImportId" IS NOT NULL;

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127031517_Imports', '10.0.12');
