import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Pictures that people add: whether one is decoration, which file browsers fall back on, and how often it was replaced. */
export class MediaLibrary1790400000000 implements MigrationInterface {
  name = 'MediaLibrary1790400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE media ADD is_decoration TINYINT NOT NULL DEFAULT 0, ADD fallback VARCHAR(20) NOT NULL DEFAULT 'fallback.jpg', " +
        'ADD revision INT NOT NULL DEFAULT 1',
    )
    await runner.query(
      'ALTER TABLE media ALTER is_decoration DROP DEFAULT, ALTER fallback DROP DEFAULT, ALTER revision DROP DEFAULT',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE media DROP is_decoration, DROP fallback, DROP revision')
  }
}
