import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Sites have sizes of their own, with names, where there were two bounds. */
export class SiteSizes1791800000000 implements MigrationInterface {
  name = 'SiteSizes1791800000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `UPDATE sites SET look = JSON_REMOVE(JSON_SET(look, '$.sizes', JSON_ARRAY(
         JSON_OBJECT('key', 'base', 'name', 'wide', 'from', JSON_EXTRACT(look, '$.bounds.wide')),
         JSON_OBJECT('key', 'medium', 'name', 'medium', 'from', JSON_EXTRACT(look, '$.bounds.medium')),
         JSON_OBJECT('key', 'narrow', 'name', 'narrow', 'from', 0))), '$.bounds')
       WHERE JSON_EXISTS(look, '$.bounds')`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      `UPDATE sites SET look = JSON_REMOVE(JSON_SET(look, '$.bounds', JSON_OBJECT(
         'wide', JSON_EXTRACT(look, '$.sizes[0].from'), 'medium', GREATEST(321, JSON_EXTRACT(look, '$.sizes[1].from')))),
         '$.sizes')`,
    )
    await runner.query(
      `UPDATE sites SET look = JSON_REMOVE(look, '$.formerSizes') WHERE JSON_EXISTS(look, '$.formerSizes')`,
    )
  }
}
