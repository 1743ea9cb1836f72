BEGIN TRANSACTION;
ALTER TABLE "SavedDrafts" ADD "FollowedUp" INTEGER NULL;

ALTER TABLE "SavedDrafts" ADD "MayFollowUp" INTEGER NOT NULL DEFAULT 0;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127094838_LeftAtTheDoor', '10.0.12');

COMMIT;
