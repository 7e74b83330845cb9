import type { MigrationInterface, QueryRunner } from 'typeorm'

const ID = 'varchar(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL'

export class First1764000000000 implements MigrationInterface {
  name = 'First1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    const tables = [
      `project (id ${ID}, name varchar(120) NOT NULL, unit varchar(8) NOT NULL, seq int NOT NULL, totalArea double NULL, totalSeq int NULL, changedAt datetime(3) NOT NULL, removedAt datetime(3) NULL, PRIMARY KEY (id))`,
      `edit (projectId ${ID}, seq int NOT NULL, editId ${ID}, author ${ID}, label varchar(200) NOT NULL, kind varchar(8) NOT NULL, ofSeq int NULL, edit longtext NOT NULL, inverse longtext NOT NULL, at datetime(3) NOT NULL, PRIMARY KEY (projectId, seq), UNIQUE KEY by_edit (projectId, editId), KEY by_author (projectId, author, seq))`,
      `checkpoint (projectId ${ID}, seq int NOT NULL, data longtext NOT NULL, PRIMARY KEY (projectId, seq))`,
      `job (id int NOT NULL AUTO_INCREMENT, kind varchar(32) NOT NULL, projectId ${ID}, runAfter datetime(3) NOT NULL, PRIMARY KEY (id), UNIQUE KEY one_each (kind, projectId))`,
      `scheme (projectId ${ID}, id ${ID}, name varchar(120) NOT NULL, PRIMARY KEY (projectId, id))`,
      `level (projectId ${ID}, schemeId ${ID}, id ${ID}, name varchar(120) NOT NULL, kind varchar(8) NOT NULL, height double NOT NULL, PRIMARY KEY (projectId, schemeId, id))`,
      `mass (projectId ${ID}, schemeId ${ID}, id ${ID}, name varchar(120) NOT NULL, useId ${ID}, PRIMARY KEY (projectId, schemeId, id))`,
      `part (projectId ${ID}, schemeId ${ID}, id ${ID}, name varchar(120) NOT NULL, kind varchar(8) NOT NULL, massId ${ID}, PRIMARY KEY (projectId, schemeId, id))`,
    ]
    for (const table of tables)
      await runner.query(`CREATE TABLE IF NOT EXISTS ${table} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4`)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['part', 'mass', 'level', 'scheme', 'job', 'checkpoint', 'edit', 'project'])
      await runner.query(`DROP TABLE IF EXISTS ${table}`)
  }
}
