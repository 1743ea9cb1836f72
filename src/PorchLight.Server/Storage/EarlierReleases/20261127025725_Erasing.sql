BEGIN TRANSACTION;
ALTER TABLE "Submissions" ADD "IsErased" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Clients" ADD "EraseOn" TEXT NULL;

ALTER TABLE "Businesses" ADD "KeepClientsMonths" INTEGER NULL;

CREATE INDEX "IX_Clients_EraseOn" ON "Clients" ("EraseOn") WHERE "EraseOn" IS NOT NULL;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127025725_Erasing', '10.0.12');

COMMIT;
