import setup from '../tests/integration/globalSetup.js';
import pg from 'pg';
import { readFileSync } from 'node:fs';
import { urlOfDatabase } from './operations/cluster/cluster.js';
const done = await setup();
const url = urlOfDatabase(process.env.LAVACRUM_TEST_DATABASE as string, 'postgres');
const keep = new pg.Client({ connectionString: url }); await keep.connect();
const pid = (await keep.query('select pg_backend_pid() p')).rows[0].p;
const stat = () => { const f = readFileSync(`/proc/${pid}/stat`, 'utf8').split(' '); return [f[9], f[11], f[13], f[14]].map(Number); };
for (let i = 0; i < 12; i++) {
  const a = stat(); const t = performance.now(); await keep.query(`create database b_${i} template lavacrum_template ${process.argv[2] ?? ''}`); const ms = performance.now() - t; const b = stat();
  console.log(Math.round(ms), 'minflt,majflt,utime,stime', b.map((x, k) => x - a[k]!).join(' '));
}
await keep.end(); done(); process.exit(0);
