import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What the list of projects shows of each: its picture, the site's area, and who worked on it last. */
export class ListFigures1764400000000 implements MigrationInterface {
  name = 'ListFigures1764400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE project ADD COLUMN IF NOT EXISTS sketch longtext NULL, ADD COLUMN IF NOT EXISTS siteArea double NULL, ADD COLUMN IF NOT EXISTS changedBy varchar(64) NULL',
    )
    // What is there already has its picture made.
    await runner.query(
      "INSERT IGNORE INTO job (kind, projectId, runAfter) SELECT 'total', id, NOW(3) FROM project WHERE removedAt IS NULL",
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE project DROP COLUMN IF EXISTS sketch, DROP COLUMN IF EXISTS siteArea, DROP COLUMN IF EXISTS changedBy',
    )
  }
}
