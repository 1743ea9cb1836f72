BEGIN TRANSACTION;
ALTER TABLE "PracticeMail" ADD "Enclosed" TEXT NULL;

ALTER TABLE "PracticeMail" ADD "Formatted" TEXT NULL;

ALTER TABLE "OutgoingMail" ADD "Enclosed" TEXT NULL;

ALTER TABLE "OutgoingMail" ADD "Formatted" TEXT NULL;

ALTER TABLE "Businesses" ADD "Signature" TEXT NOT NULL DEFAULT '';

ALTER TABLE "AspNetUsers" ADD "Signature" TEXT NOT NULL DEFAULT '';

CREATE TABLE "LibraryMessages" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_LibraryMessages" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Folder" TEXT NOT NULL,
    "Message" TEXT NOT NULL,
    "Changed" INTEGER NOT NULL
);

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127182309_LibraryMessages', '10.0.12');

COMMIT;
