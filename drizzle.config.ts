import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'postgresql',
  schema: './server/base/database/tables/*.ts',
  out: './server/base/database/migrations',
  entities: { roles: false },
});
