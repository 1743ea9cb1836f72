BEGIN TRANSACTION;
ALTER TABLE "OutgoingMail" ADD "InReplyTo" TEXT NULL;

ALTER TABLE "Businesses" ADD "Imap" TEXT NULL;

CREATE TABLE "IncomingMail" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_IncomingMail" PRIMARY KEY,
    "MessageId" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "From" TEXT NOT NULL,
    "Subject" TEXT NOT NULL,
    "Text" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "AnswersId" TEXT NULL,
    CONSTRAINT "FK_IncomingMail_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_IncomingMail_OutgoingMail_AnswersId" FOREIGN KEY ("AnswersId") REFERENCES "OutgoingMail" ("Id") ON DELETE SET NULL
);

CREATE TABLE "MailboxPositions" (
    "Mailbox" TEXT NOT NULL CONSTRAINT "PK_MailboxPositions" PRIMARY KEY,
    "Validity" INTEGER NOT NULL,
    "Last" INTEGER NOT NULL
);

CREATE INDEX "IX_IncomingMail_ClientId" ON "IncomingMail" ("ClientId");

CREATE UNIQUE INDEX "IX_IncomingMail_MessageId" ON "IncomingMail" ("MessageId");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127175950_MailThatComesIn', '10.0.12');

COMMIT;
