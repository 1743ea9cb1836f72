BEGIN TRANSACTION;
ALTER TABLE "Runs" ADD "NodStatus" TEXT NULL;

CREATE INDEX "IX_Runs_NodStatus" ON "Runs" ("NodStatus") WHERE "NodStatus" IS NOT NULL;

UPDATE "Runs" SET "NodStatus" = (
    SELECT CASE json_extract(step.value, '$.status') WHEN 'waiting' THEN 'Waiting' ELSE 'Approved' END
    FROM json_each(COALESCE(json_extract("State", '$.value.steps'), json_extract("State", '$.steps'))) step
    WHERE json_extract(step.value, '$.status') IN ('waiting', 'approved')
    LIMIT 1)
WHERE "Active" AND COALESCE(json_extract("State", '$.value.status'), json_extract("State", '$.status'), 'active') = 'active';

INSERT INTO "__EFMigrationsHistory" ("MigrationId", "ProductVersion")
VALUES ('20261127215234_NodsOfRuns', '10.0.12');

COMMIT;
