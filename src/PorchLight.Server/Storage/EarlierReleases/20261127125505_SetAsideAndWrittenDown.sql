BEGIN TRANSACTION;
ALTER TABLE "Inquiries" ADD "Aside" TEXT NULL;

ALTER TABLE "Inquiries" ADD "Channel" TEXT NOT NULL DEFAULT 'Form';

ALTER TABLE "Inquiries" ADD "LooksAfterId" TEXT NULL;

ALTER TABLE "Inquiries" ADD "PromiseHours" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Inquiries" ADD "Stage" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Inquiries" ADD "WrittenDownBy" TEXT NULL;

ALTER TABLE "Clients" ADD "AlwaysComesIn" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Clients" ADD "IsAside" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "AspNetUsers" ADD "ToldAtNight" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "AspNetUsers" ADD "ToldDailyAt" TEXT NULL;

UPDATE Inquiries SET PromiseHours = (SELECT PromiseHours FROM Businesses);

UPDATE Inquiries SET
    Stage = (SELECT Stage FROM Projects WHERE Projects.Id = Inquiries.ProjectId),
    LooksAfterId = (SELECT LooksAfterId FROM Projects WHERE Projects.Id = Inquiries.ProjectId);

CREATE TABLE "Tellings" (
    "UserId" TEXT NOT NULL,
    "InquiryId" TEXT NOT NULL,
    "Due" INTEGER NOT NULL,
    CONSTRAINT "PK_Tellings" PRIMARY KEY ("UserId", "InquiryId"),
    CONSTRAINT "FK_Tellings_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Tellings_Inquiries_InquiryId" FOREIGN KEY ("InquiryId") REFERENCES "Inquiries" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_Inquiries_Fit_Need_Urgency_Id" ON "Inquiries" ("Fit", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_LooksAfterId_Need_Urgency_Id" ON "Inquiries" ("LooksAfterId", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Service_Need_Urgency_Id" ON "Inquiries" ("Service", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Source_Need_Urgency_Id" ON "Inquiries" ("Source", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Stage_Need_Urgency_Id" ON "Inquiries" ("Stage", "Need", "Urgency", "Id");

CREATE INDEX "IX_Tellings_Due" ON "Tellings" ("Due");

CREATE TABLE "ef_temp_Inquiries" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Inquiries" PRIMARY KEY,
    "About" TEXT NOT NULL,
    "Aside" TEXT NULL,
    "Budget" TEXT NULL,
    "BudgetAmount" REAL NULL,
    "CallAsked" INTEGER NULL,
    "CameFrom" TEXT NULL,
    "Channel" TEXT NOT NULL,
    "ClientId" TEXT NOT NULL,
    "Closed" INTEGER NULL,
    "Fit" TEXT NULL,
    "Flags" INTEGER NOT NULL,
    "FormId" TEXT NOT NULL,
    "FormVersion" INTEGER NOT NULL,
    "KnownBefore" INTEGER NOT NULL,
    "LooksAfterId" TEXT NULL,
    "Need" INTEGER NOT NULL,
    "ProjectId" TEXT NOT NULL,
    "PromiseClock" TEXT NOT NULL,
    "PromiseHours" INTEGER NOT NULL,
    "PromiseStopped" INTEGER NULL,
    "PromisedBy" INTEGER NULL,
    "Received" INTEGER NOT NULL,
    "Score" INTEGER NOT NULL,
    "ScreeningVersion" INTEGER NOT NULL,
    "Service" TEXT NULL,
    "SortName" TEXT NOT NULL,
    "Source" TEXT NULL,
    "Stage" TEXT NOT NULL,
    "SubmissionId" TEXT NOT NULL,
    "Urgency" INTEGER NOT NULL,
    "Verdict" TEXT NOT NULL,
    "Waits" INTEGER NOT NULL,
    "WantedMonth" TEXT NULL,
    "WrittenDownBy" TEXT NULL,
    "WroteBack" INTEGER NULL,
    CONSTRAINT "FK_Inquiries_AspNetUsers_LooksAfterId" FOREIGN KEY ("LooksAfterId") REFERENCES "AspNetUsers" ("Id") ON DELETE SET NULL,
    CONSTRAINT "FK_Inquiries_Clients_ClientId" FOREIGN KEY ("ClientId") REFERENCES "Clients" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Inquiries_FormVersions_FormId_FormVersion" FOREIGN KEY ("FormId", "FormVersion") REFERENCES "FormVersions" ("FormId", "Number"),
    CONSTRAINT "FK_Inquiries_Projects_ProjectId" FOREIGN KEY ("ProjectId") REFERENCES "Projects" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Inquiries_ScreeningVersions_FormId_ScreeningVersion" FOREIGN KEY ("FormId", "ScreeningVersion") REFERENCES "ScreeningVersions" ("FormId", "Number"),
    CONSTRAINT "FK_Inquiries_Submissions_SubmissionId" FOREIGN KEY ("SubmissionId") REFERENCES "Submissions" ("Id")
);

INSERT INTO "ef_temp_Inquiries" ("Id", "About", "Aside", "Budget", "BudgetAmount", "CallAsked", "CameFrom", "Channel", "ClientId", "Closed", "Fit", "Flags", "FormId", "FormVersion", "KnownBefore", "LooksAfterId", "Need", "ProjectId", "PromiseClock", "PromiseHours", "PromiseStopped", "PromisedBy", "Received", "Score", "ScreeningVersion", "Service", "SortName", "Source", "Stage", "SubmissionId", "Urgency", "Verdict", "Waits", "WantedMonth", "WrittenDownBy", "WroteBack")
SELECT "Id", "About", "Aside", "Budget", "BudgetAmount", "CallAsked", "CameFrom", "Channel", "ClientId", "Closed", "Fit", "Flags", "FormId", "FormVersion", "KnownBefore", "LooksAfterId", "Need", "ProjectId", "PromiseClock", "PromiseHours", "PromiseStopped", "PromisedBy", "Received", "Score", "ScreeningVersion", "Service", "SortName", "Source", "Stage", "SubmissionId", "Urgency", "Verdict", "Waits", "WantedMonth", "WrittenDownBy", "WroteBack"
FROM "Inquiries";

COMMIT;

PRAGMA foreign_keys = 0;

BEGIN TRANSACTION;
DROP TABLE "Inquiries";

ALTER TABLE "ef_temp_Inquiries" RENAME TO "Inquiries";

COMMIT;

PRAGMA foreign_keys = 1;

BEGIN TRANSACTION;
CREATE INDEX "IX_Inquiries_BudgetAmount_Id" ON "Inquiries" ("BudgetAmount", "Id");

CREATE INDEX "IX_Inquiries_ClientId" ON "Inquiries" ("ClientId");

CREATE INDEX "IX_Inquiries_Fit_Need_Urgency_Id" ON "Inquiries" ("Fit", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_FormId_WantedMonth" ON "Inquiries" ("FormId", "WantedMonth");

CREATE INDEX "IX_Inquiries_LooksAfterId_Need_Urgency_Id" ON "Inquiries" ("LooksAfterId", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Need_Urgency_Id" ON "Inquiries" ("Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Received_Id" ON "Inquiries" ("Received", "Id");

CREATE INDEX "IX_Inquiries_Score_Id" ON "Inquiries" ("Score", "Id");

CREATE INDEX "IX_Inquiries_Service_Need_Urgency_Id" ON "Inquiries" ("Service", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_SortName_Id" ON "Inquiries" ("SortName", "Id");

CREATE INDEX "IX_Inquiries_Source_Need_Urgency_Id" ON "Inquiries" ("Source", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_Stage_Need_Urgency_Id" ON "Inquiries" ("Stage", "Need", "Urgency", "Id");

CREATE INDEX "IX_Inquiries_SubmissionId" ON "Inquiries" ("SubmissionId");

COMMIT;

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127125505_SetAsideAndWrittenDown', '10.0.12');
