import type { MigrationInterface, QueryRunner } from 'typeorm'

const ID = 'varchar(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL'

export class RestorePoints1764100000000 implements MigrationInterface {
  name = 'RestorePoints1764100000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE IF NOT EXISTS restore_point (projectId ${ID}, id ${ID}, seq int NOT NULL, name varchar(120) NOT NULL, at datetime(3) NOT NULL, PRIMARY KEY (projectId, id)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS restore_point')
  }
}
