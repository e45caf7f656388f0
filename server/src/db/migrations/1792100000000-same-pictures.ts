import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Stores what each picture was made from, so that the same is not made twice. Of those of before it is not known. */
export class SamePictures1792100000000 implements MigrationInterface {
  name = 'SamePictures1792100000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE media ADD COLUMN made_from VARCHAR(64) NULL, ADD INDEX media_made_from (made_from)',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE media DROP INDEX media_made_from, DROP COLUMN made_from')
  }
}
