import type { MigrationInterface, QueryRunner } from 'typeorm'

/** The format that an edit and a checkpoint were written in; what is there already is of the first. */
export class LogFormat1764300000000 implements MigrationInterface {
  name = 'LogFormat1764300000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const table of ['edit', 'checkpoint'])
      await runner.query(`ALTER TABLE ${table} ADD COLUMN IF NOT EXISTS format int NOT NULL DEFAULT 1`)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['edit', 'checkpoint']) await runner.query(`ALTER TABLE ${table} DROP COLUMN IF EXISTS format`)
  }
}
