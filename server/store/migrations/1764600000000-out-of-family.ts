import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Runs that a lead left out of their family, with the reason; units that read otherwise than theirs. */
export class OutOfFamily1764600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE wheel_run ADD leftOutWords VARCHAR(200) NULL, ADD leftOutBy VARCHAR(80) NULL, ADD leftOutAt DATETIME(3) NULL',
    );
    await runner.query('ALTER TABLE unit ADD odd VARCHAR(300) NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE wheel_run DROP leftOutWords, DROP leftOutBy, DROP leftOutAt');
    await runner.query('ALTER TABLE unit DROP odd');
  }
}
