BEGIN TRANSACTION;
ALTER TABLE "OutgoingMail" ADD "Unsubscribe" TEXT NULL;

CREATE TABLE "PracticeNotes" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_PracticeNotes" PRIMARY KEY,
    "EffectKey" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Phone" TEXT NULL,
    "Text" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_PracticeNotes_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "UnsubscribeLinks" (
    "ClientId" TEXT NOT NULL CONSTRAINT "PK_UnsubscribeLinks" PRIMARY KEY,
    "Hash" TEXT NOT NULL,
    "Sealed" TEXT NOT NULL,
    CONSTRAINT "FK_UnsubscribeLinks_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_PracticeNotes_ClientId" ON "PracticeNotes" ("ClientId");

CREATE UNIQUE INDEX "IX_PracticeNotes_EffectKey" ON "PracticeNotes" ("EffectKey");

CREATE UNIQUE INDEX "IX_UnsubscribeLinks_Hash" ON "UnsubscribeLinks" ("Hash");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127185338_ConsentAndNotes', '10.0.12');

COMMIT;
