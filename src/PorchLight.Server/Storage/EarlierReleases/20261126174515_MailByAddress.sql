BEGIN TRANSACTION;
CREATE INDEX "IX_OutgoingMail_To_Written" ON "OutgoingMail" ("To", "Written") WHERE "Automatic";

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261126174515_MailByAddress', '10.0.12');

COMMIT;
