BEGIN TRANSACTION;
ALTER TABLE "Inquiries" ADD "Budget" TEXT NULL;

ALTER TABLE "Inquiries" ADD "BudgetAmount" REAL NULL;

ALTER TABLE "Inquiries" ADD "Service" TEXT NULL;

ALTER TABLE "Inquiries" ADD "SortName" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Inquiries" ADD "Source" TEXT NULL;

CREATE INDEX "IX_Inquiries_BudgetAmount_Id" ON "Inquiries" ("BudgetAmount", "Id");

CREATE INDEX "IX_Inquiries_SortName_Id" ON "Inquiries" ("SortName", "Id");

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127101243_InquiryColumns', '10.0.12');

COMMIT;
