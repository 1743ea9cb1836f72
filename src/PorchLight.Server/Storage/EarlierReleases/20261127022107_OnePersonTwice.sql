BEGIN TRANSACTION;
DROP INDEX "IX_Clients_EmailKey";

ALTER TABLE "Clients" ADD "MergedIntoId" TEXT NULL;

CREATE TABLE "ClientKeys" (
    "ClientId" TEXT NOT NULL,
    "Key" TEXT NOT NULL,
    CONSTRAINT "PK_ClientKeys" PRIMARY KEY ("ClientId", "Key"),
    CONSTRAINT "FK_ClientKeys_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "ClientMerges" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_ClientMerges" PRIMARY KEY,
    "KeptId" TEXT NOT NULL,
    "OtherId" TEXT NOT NULL,
    "Memory" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "Split" INTEGER NULL,
    CONSTRAINT "FK_ClientMerges_Clients_KeptId" FOREIGN KEY ("KeptId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_ClientMerges_Clients_OtherId" FOREIGN KEY ("OtherId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "ClientPairs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_ClientPairs" PRIMARY KEY,
    "OneId" TEXT NOT NULL,
    "OtherId" TEXT NOT NULL,
    "Likeness" TEXT NOT NULL,
    "AreTwo" INTEGER NULL,
    "DecidedBy" TEXT NULL,
    CONSTRAINT "FK_ClientPairs_Clients_OneId" FOREIGN KEY ("OneId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_ClientPairs_Clients_OtherId" FOREIGN KEY ("OtherId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_Clients_EmailKey" ON "Clients" ("EmailKey");

CREATE INDEX "IX_Clients_MergedIntoId" ON "Clients" ("MergedIntoId");

CREATE INDEX "IX_ClientKeys_Key" ON "ClientKeys" ("Key");

CREATE INDEX "IX_ClientMerges_KeptId" ON "ClientMerges" ("KeptId");

CREATE UNIQUE INDEX "IX_ClientPairs_OneId_OtherId" ON "ClientPairs" ("OneId", "OtherId");

CREATE INDEX "IX_ClientPairs_OtherId" ON "ClientPairs" ("OtherId");

UPDATE "Clients" SET "IsUnindexed" = 1;

CREATE TABLE "ef_temp_Clients" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Clients" PRIMARY KEY,
    "Email" TEXT NULL,
    "EmailKey" TEXT NULL,
    "IsUnindexed" INTEGER NOT NULL,
    "MergedIntoId" TEXT NULL,
    "Name" TEXT NOT NULL,
    "Since" INTEGER NOT NULL,
    "SortName" TEXT NOT NULL,
    "Standing" TEXT NOT NULL,
    CONSTRAINT "FK_Clients_Clients_MergedIntoId" FOREIGN KEY ("MergedIntoId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Clients" ("Id", "Email", "EmailKey", "IsUnindexed", "MergedIntoId", "Name", "Since", "SortName", "Standing")
SELECT "Id", "Email", "EmailKey", "IsUnindexed", "MergedIntoId", "Name", "Since", "SortName", "Standing"
FROM "Clients";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Clients";

ALTER TABLE "ef_temp_Clients" RENAME TO "Clients";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Clients_EmailKey" ON "Clients" ("EmailKey");

CREATE INDEX "IX_Clients_IsUnindexed" ON "Clients" ("IsUnindexed") WHERE "IsUnindexed";

CREATE INDEX "IX_Clients_MergedIntoId" ON "Clients" ("MergedIntoId");

CREATE INDEX "IX_Clients_Since" ON "Clients" ("Since");

CREATE INDEX "IX_Clients_SortName" ON "Clients" ("SortName");

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127022107_OnePersonTwice', '10.0.12');
