BEGIN TRANSACTION;
DROP TABLE "FollowThroughs";

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127144148_OldFollowThroughsGone', '10.0.12');

COMMIT;
