BEGIN TRANSACTION;
ALTER TABLE "ScreeningVersions" ADD "By" TEXT NULL;

ALTER TABLE "ScreeningVersions" ADD "Since" INTEGER NULL;

ALTER TABLE "Forms" ADD "ScreeningDraft" TEXT NULL;

ALTER TABLE "Businesses" ADD "FirstCallMinutes" INTEGER NOT NULL DEFAULT 45;

CREATE TABLE "LaterVerdicts" (
    "InquiryId" TEXT NOT NULL,
    "ScreeningVersion" INTEGER NOT NULL,
    "Verdict" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "PK_LaterVerdicts" PRIMARY KEY ("InquiryId", "ScreeningVersion"),
    CONSTRAINT "FK_LaterVerdicts_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE
);

CREATE TABLE "OverruledFits" (
    "InquiryId" TEXT NOT NULL CONSTRAINT "PK_OverruledFits" PRIMARY KEY,
    "Fit" TEXT NOT NULL,
    "Reason" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_OverruledFits_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE
);

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127084647_ScreeningWorkedOn', '10.0.12');

COMMIT;
