import type { MigrationInterface, QueryRunner } from 'typeorm'

/** When journals of closed tabs were offered, so that they end some day. */
export class JournalOffers1790800000000 implements MigrationInterface {
  name = 'JournalOffers1790800000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE journal_entries ADD offered_at DATETIME(3) NULL')
    await runner.query('CREATE INDEX journal_offered ON journal_entries (offered_at)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX journal_offered ON journal_entries')
    await runner.query('ALTER TABLE journal_entries DROP offered_at')
  }
}
