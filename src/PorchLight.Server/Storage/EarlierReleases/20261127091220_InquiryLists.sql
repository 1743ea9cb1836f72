BEGIN TRANSACTION;
ALTER TABLE "Projects" ADD "LostReason" TEXT NULL;

ALTER TABLE "Projects" ADD "ParkedUntil" TEXT NULL;

ALTER TABLE "Inquiries" ADD "About" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Inquiries" ADD "Flags" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Inquiries" ADD "Need" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Inquiries" ADD "Score" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Inquiries" ADD "Urgency" INTEGER NOT NULL DEFAULT 0;

CREATE TABLE "InquiryListViews" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_InquiryListViews" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Query" TEXT NOT NULL
);

CREATE INDEX "IX_Projects_ParkedUntil" ON "Projects" ("ParkedUntil") WHERE "ParkedUntil" IS NOT NULL;

CREATE INDEX "IX_Inquiries_Need_Urgency_Id" ON "Inquiries" ("Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Received_Id" ON "Inquiries" ("Received", "Id");

CREATE INDEX "IX_Inquiries_Score_Id" ON "Inquiries" ("Score", "Id");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127091220_InquiryLists', '10.0.12');

COMMIT;
