import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Since when a session is open, when it was used, and in what browser. Sessions of before began when this ran. */
export class SessionFacts1790900000000 implements MigrationInterface {
  name = 'SessionFacts1790900000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE sessions ADD started_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3), ' +
        'ADD used_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3), ' +
        "ADD device VARCHAR(100) NOT NULL DEFAULT 'Unknown browser'",
    )
    await runner.query(
      'ALTER TABLE sessions ALTER started_at DROP DEFAULT, ALTER used_at DROP DEFAULT, ALTER device DROP DEFAULT',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sessions DROP started_at, DROP used_at, DROP device')
  }
}
