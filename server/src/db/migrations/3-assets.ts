import type { MigrationInterface, QueryRunner } from 'typeorm'

const HASH = 'varchar(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL'

export class Assets1764200000000 implements MigrationInterface {
  name = 'Assets1764200000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE IF NOT EXISTS asset (hash ${HASH}, type varchar(64) NOT NULL, bytes int NOT NULL, at datetime(3) NOT NULL, PRIMARY KEY (hash)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4`,
    )
    await runner.query(
      `CREATE TABLE IF NOT EXISTS asset_piece (hash ${HASH}, n int NOT NULL, data mediumblob NOT NULL, PRIMARY KEY (hash, n)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS asset_piece')
    await runner.query('DROP TABLE IF EXISTS asset')
  }
}
