import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm'

/** A project's row: its place in the log, and the figures that the list shows. */
@Entity('project')
export class ProjectRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'varchar', length: 120 }) name!: string
  @Column({ type: 'varchar', length: 8 }) unit!: string
  /** the sequence number of the newest edit */
  @Column({ type: 'int' }) seq!: number
  /** m2 of the first scheme, computed by the server for the project as of totalSeq */
  @Column({ type: 'double', nullable: true }) totalArea!: number | null
  @Column({ type: 'int', nullable: true }) totalSeq!: number | null
  /** m2 of the site, of the same moment, and the small picture (see core/study/sketch.ts) as JSON */
  @Column({ type: 'double', nullable: true }) siteArea!: number | null
  @Column({ type: 'longtext', nullable: true, select: false }) sketch!: string | null
  @Column({ type: 'datetime', precision: 3 }) changedAt!: Date
  /** who made the newest edit; null: nobody has made one yet */
  @Column({ type: 'varchar', length: 64, nullable: true }) changedBy!: string | null
  @Column({ type: 'datetime', precision: 3, nullable: true }) removedAt!: Date | null
}

/** The log of edits: the truth of a project, together with its checkpoints. */
@Entity('edit')
@Index(['projectId', 'editId'], { unique: true })
@Index(['projectId', 'author', 'seq'])
export class EditRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'int' }) seq!: number
  /** minted by the client, so that sending twice stores once */
  @Column({ type: 'varchar', length: 64 }) editId!: string
  @Column({ type: 'varchar', length: 64 }) author!: string
  @Column({ type: 'varchar', length: 200 }) label!: string
  @Column({ type: 'varchar', length: 8 }) kind!: 'edit' | 'undo' | 'redo' | 'pass'
  /** what an undo takes back, a redo does again, or is passed over since it can be neither */
  @Column({ type: 'int', nullable: true }) ofSeq!: number | null
  @Column({ type: 'longtext' }) edit!: string
  @Column({ type: 'longtext' }) inverse!: string
  /** what edit and inverse are written in; see core/edits/log-format.ts */
  @Column({ type: 'int', default: 1 }) format!: number
  @Column({ type: 'datetime', precision: 3 }) at!: Date
}

/** The whole project as it was at a sequence number. */
@Entity('checkpoint')
export class CheckpointRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'int' }) seq!: number
  @Column({ type: 'longtext' }) data!: string
  @Column({ type: 'int', default: 1 }) format!: number
}

/** A named moment of the log, to be looked at beside the present, or brought back. */
@Entity('restore_point')
export class RestorePointRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'int' }) seq!: number
  @Column({ type: 'varchar', length: 120 }) name!: string
  @Column({ type: 'datetime', precision: 3 }) at!: Date
}

/** A picture or a survey, once, by the hash of its content; the content in pieces, so that no packet is large. */
@Entity('asset')
export class AssetRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) hash!: string
  @Column({ type: 'varchar', length: 64 }) type!: string
  @Column({ type: 'int' }) bytes!: number
  @Column({ type: 'datetime', precision: 3 }) at!: Date
}

@Entity('asset_piece')
export class AssetPieceRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) hash!: string
  @PrimaryColumn({ type: 'int' }) n!: number
  @Column({ type: 'mediumblob' }) data!: Buffer
}

/** Work to be done by any server process; one row for each kind and project. */
@Entity('job')
@Index(['kind', 'projectId'], { unique: true })
export class JobRow {
  @PrimaryGeneratedColumn({ type: 'int' }) id!: number
  @Column({ type: 'varchar', length: 32 }) kind!: string
  @Column({ type: 'varchar', length: 64 }) projectId!: string
  @Column({ type: 'datetime', precision: 3 }) runAfter!: Date
}

/** Projections: what is asked for on its own, written in the edit's transaction. */
@Entity('scheme')
export class SchemeRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'varchar', length: 120 }) name!: string
}

@Entity('level')
export class LevelRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) schemeId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'varchar', length: 120 }) name!: string
  @Column({ type: 'varchar', length: 8 }) kind!: string
  /** m above the datum */
  @Column({ type: 'double' }) height!: number
}

@Entity('mass')
export class MassRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) schemeId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'varchar', length: 120 }) name!: string
  @Column({ type: 'varchar', length: 64 }) useId!: string
}

@Entity('part')
export class PartRow {
  @PrimaryColumn({ type: 'varchar', length: 64 }) projectId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) schemeId!: string
  @PrimaryColumn({ type: 'varchar', length: 64 }) id!: string
  @Column({ type: 'varchar', length: 120 }) name!: string
  @Column({ type: 'varchar', length: 8 }) kind!: string
  @Column({ type: 'varchar', length: 64 }) massId!: string
}

export const ENTITIES = [
  ProjectRow,
  EditRow,
  CheckpointRow,
  RestorePointRow,
  AssetRow,
  AssetPieceRow,
  JobRow,
  SchemeRow,
  LevelRow,
  MassRow,
  PartRow,
]
