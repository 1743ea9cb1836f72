BEGIN TRANSACTION;
ALTER TABLE "TeamChat" ADD "SavedDraftId" TEXT NULL;

CREATE INDEX "IX_TeamChat_SavedDraftId" ON "TeamChat" ("SavedDraftId");

CREATE TABLE "ef_temp_TeamChat" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_TeamChat" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NULL,
    "SavedDraftId" TEXT NULL,
    "Text" TEXT NOT NULL,
    CONSTRAINT "FK_TeamChat_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_TeamChat_SavedDrafts_SavedDraftId" FOREIGN KEY ("SavedDraftId") REFERENCES "SavedDrafts" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_TeamChat" ("Id", "At", "By", "ClientId", "SavedDraftId", "Text")
SELECT "Id", "At", "By", "ClientId", "SavedDraftId", "Text"
FROM "TeamChat";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "TeamChat";

ALTER TABLE "ef_temp_TeamChat" RENAME TO "TeamChat";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_TeamChat_ClientId" ON "TeamChat" ("ClientId");

CREATE INDEX "IX_TeamChat_SavedDraftId" ON "TeamChat" ("SavedDraftId");

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261128035510_TeamChatOfLeftForms', '10.0.12');
