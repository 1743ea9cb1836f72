BEGIN TRANSACTION;
ALTER TABLE "Projects" ADD "Stage" TEXT NOT NULL DEFAULT 'new';

UPDATE "Projects" SET "Stage" = 'finished' WHERE "Closed" IS NOT NULL;

ALTER TABLE "Projects" ADD "LooksAfterId" TEXT NULL;

ALTER TABLE "Differences" ADD "Corrected" TEXT NULL;

ALTER TABLE "Differences" ADD "CorrectedBy" TEXT NULL;

CREATE TABLE "Arrangements" (
    "Scope" TEXT NOT NULL,
    "Service" TEXT NOT NULL,
    "Arrangement" TEXT NOT NULL,
    CONSTRAINT "PK_Arrangements" PRIMARY KEY ("Scope", "Service")
);

CREATE TABLE "ClientTasks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_ClientTasks" PRIMARY KEY,
    "ClientId" TEXT NOT NULL,
    "ProjectId" TEXT NULL,
    "Title" TEXT NOT NULL,
    "IsDate" INTEGER NOT NULL,
    "On" TEXT NULL,
    "ForId" TEXT NULL,
    "Done" INTEGER NULL,
    "DoneBy" TEXT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_ClientTasks_AspNetUsers_ForId" FOREIGN KEY ("ForId") REFERENCES "AspNetUsers" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_ClientTasks_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_ClientTasks_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_ClientTasks_ClientId" ON "ClientTasks" ("ClientId");

CREATE INDEX "IX_ClientTasks_On" ON "ClientTasks" ("On") WHERE "Done" IS NULL;

CREATE TABLE "ef_temp_Projects" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Projects" PRIMARY KEY,
    "ClientId" TEXT NOT NULL,
    "Closed" INTEGER NULL,
    "FormId" TEXT NULL,
    "IsLatest" INTEGER NOT NULL,
    "LooksAfterId" TEXT NULL,
    "Opened" INTEGER NOT NULL,
    "Stage" TEXT NOT NULL,
    "Title" TEXT NOT NULL,
    CONSTRAINT "FK_Projects_AspNetUsers_LooksAfterId" FOREIGN KEY ("LooksAfterId") REFERENCES "AspNetUsers" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Projects_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Projects_Forms_FormId" FOREIGN KEY ("FormId") REFERENCES "Forms" ("Id")
);

INSERT INTO "ef_temp_Projects" ("Id", "ClientId", "Closed", "FormId", "IsLatest", "LooksAfterId", "Opened", "Stage", "Title")
SELECT "Id", "ClientId", "Closed", "FormId", "IsLatest", "LooksAfterId", "Opened", "Stage", "Title"
FROM "Projects";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Projects";

ALTER TABLE "ef_temp_Projects" RENAME TO "Projects";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Projects_ClientId" ON "Projects" ("ClientId");

CREATE UNIQUE INDEX "IX_Projects_Latest" ON "Projects" ("ClientId") WHERE "IsLatest";

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127051023_WorkOfProjects', '10.0.12');
