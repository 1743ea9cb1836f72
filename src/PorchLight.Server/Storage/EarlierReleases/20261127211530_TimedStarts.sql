BEGIN TRANSACTION;
ALTER TABLE "Runs" ADD "DraftRevision" INTEGER NULL;

ALTER TABLE "Runs" ADD "SavedDraftId" TEXT NULL;

ALTER TABLE "Businesses" ADD "DaysLookedAt" TEXT NULL;

CREATE INDEX "IX_Runs_SavedDraftId" ON "Runs" ("SavedDraftId") WHERE "SavedDraftId" IS NOT NULL;

CREATE TABLE "ef_temp_TeamChat" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_TeamChat" PRIMARY KEY,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "ClientId" TEXT NULL,
    "Text" TEXT NOT NULL,
    CONSTRAINT "FK_TeamChat_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_TeamChat" ("Id", "At", "By", "ClientId", "Text")
SELECT "Id", "At", "By", "ClientId", "Text"
FROM "TeamChat";

CREATE TABLE "ef_temp_Runs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Runs" PRIMARY KEY,
    "Active" INTEGER NOT NULL,
    "ClientId" TEXT NULL,
    "DraftRevision" INTEGER NULL,
    "Drafts" TEXT NOT NULL,
    "Failure" TEXT NULL,
    "FollowThroughId" TEXT NOT NULL,
    "FollowThroughNumber" INTEGER NOT NULL,
    "InquiryId" TEXT NULL,
    "NextMoment" INTEGER NULL,
    "ProjectId" TEXT NULL,
    "Revision" INTEGER NOT NULL,
    "SavedDraftId" TEXT NULL,
    "State" TEXT NOT NULL,
    "Tries" INTEGER NOT NULL,
    CONSTRAINT "FK_Runs_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Runs_FollowThroughVersions_FollowThroughId_FollowThroughNumber" FOREIGN KEY ("FollowThroughId", "FollowThroughNumber") REFERENCES "FollowThroughVersions" ("FollowThroughId", "Number"),
    CONSTRAINT "FK_Runs_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Runs_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Runs_SavedDrafts_SavedDraftId" FOREIGN KEY ("SavedDraftId") REFERENCES "SavedDrafts" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Runs" ("Id", "Active", "ClientId", "DraftRevision", "Drafts", "Failure", "FollowThroughId", "FollowThroughNumber", "InquiryId", "NextMoment", "ProjectId", "Revision", "SavedDraftId", "State", "Tries")
SELECT "Id", "Active", "ClientId", "DraftRevision", "Drafts", "Failure", "FollowThroughId", "FollowThroughNumber", "InquiryId", "NextMoment", "ProjectId", "Revision", "SavedDraftId", "State", "Tries"
FROM "Runs";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "TeamChat";

ALTER TABLE "ef_temp_TeamChat" RENAME TO "TeamChat";

DROP TABLE "Runs";

ALTER TABLE "ef_temp_Runs" RENAME TO "Runs";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_TeamChat_ClientId" ON "TeamChat" ("ClientId");

CREATE INDEX "IX_Runs_ClientId" ON "Runs" ("ClientId");

CREATE INDEX "IX_Runs_FollowThroughId" ON "Runs" ("FollowThroughId") WHERE "Active";

CREATE INDEX "IX_Runs_NextMoment" ON "Runs" ("NextMoment");

CREATE INDEX "IX_Runs_SavedDraftId" ON "Runs" ("SavedDraftId") WHERE "SavedDraftId" IS NOT NULL;

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127211530_TimedStarts', '10.0.12');
