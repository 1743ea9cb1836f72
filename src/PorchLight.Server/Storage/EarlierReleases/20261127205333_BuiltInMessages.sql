BEGIN TRANSACTION;
CREATE TABLE "BuiltInTexts" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_BuiltInTexts" PRIMARY KEY,
    "FormId" TEXT NULL,
    "Kind" TEXT NOT NULL,
    "Wording" TEXT NOT NULL,
    "Message" TEXT NOT NULL,
    CONSTRAINT "FK_BuiltInTexts_Forms_FormId" FOREIGN KEY ("FormId") REFERENCES "Forms" ("Id") ON DELETE CASCADE
);

CREATE UNIQUE INDEX "IX_BuiltInTexts_FormId_Kind" ON "BuiltInTexts" ("FormId", "Kind");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127205333_BuiltInMessages', '10.0.12');

COMMIT;
