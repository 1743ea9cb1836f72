BEGIN TRANSACTION;
CREATE TABLE "ProjectWatchers" (
    "ProjectId" TEXT NOT NULL,
    "UserId" TEXT NOT NULL,
    CONSTRAINT "PK_ProjectWatchers" PRIMARY KEY ("ProjectId", "UserId"),
    CONSTRAINT "FK_ProjectWatchers_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_ProjectWatchers_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

CREATE TABLE "TeamChat" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_TeamChat" PRIMARY KEY,
    "ClientId" TEXT NOT NULL,
    "Text" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_TeamChat_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE
);

CREATE TABLE "Webhooks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Webhooks" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Address" TEXT NOT NULL,
    "SecretSealed" TEXT NOT NULL
);

CREATE TABLE "WebhookCalls" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_WebhookCalls" PRIMARY KEY,
    "WebhookId" TEXT NOT NULL,
    "EffectKey" TEXT NOT NULL,
    "ClientId" TEXT NULL,
    "Body" TEXT NOT NULL,
    "Written" INTEGER NOT NULL,
    "State" TEXT NOT NULL,
    "NextTry" INTEGER NULL,
    "Counted" INTEGER NOT NULL,
    "Tries" TEXT NOT NULL,
    CONSTRAINT "FK_WebhookCalls_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_WebhookCalls_Webhooks_WebhookId" FOREIGN KEY ("WebhookId") REFERENCES "Webhooks" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_TeamChat_ClientId" ON "TeamChat" ("ClientId");

CREATE INDEX "IX_WebhookCalls_ClientId" ON "WebhookCalls" ("ClientId");

CREATE UNIQUE INDEX "IX_WebhookCalls_EffectKey" ON "WebhookCalls" ("EffectKey");

CREATE INDEX "IX_WebhookCalls_NextTry" ON "WebhookCalls" ("NextTry") WHERE "NextTry" IS NOT NULL;

CREATE INDEX "IX_WebhookCalls_WebhookId_Written" ON "WebhookCalls" ("WebhookId", "Written");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127172650_WebhooksAndWatchers', '10.0.12');

COMMIT;
