BEGIN TRANSACTION;
DROP INDEX "IX_Clients_MergedIntoId";

CREATE INDEX "IX_Clients_MergedIntoId" ON "Clients" ("MergedIntoId") WHERE "MergedIntoId" IS NOT NULL;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127070250_ClientListIndexes', '10.0.12');

COMMIT;
