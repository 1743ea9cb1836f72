BEGIN TRANSACTION;
ALTER TABLE "Forms" ADD "Archived" INTEGER NULL;

ALTER TABLE "Forms" ADD "Service" TEXT NULL;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261126204037_FormsInTheList', '10.0.12');

COMMIT;
