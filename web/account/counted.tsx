import { Checkbox } from '@mantine/core';
import { asProblem } from '../state/api.js';
import { Notice } from '../ui/notice.js';
import { countedApi } from './counted-api.js';

/** Whether one's own work may be counted for oneself: nobody else says so, and it can be taken back. */
export function Counted() {
  const { data, error } = countedApi.useCountedQuery(null);
  const [letCount, letting] = countedApi.useLetCountMutation();
  const problem = asProblem(error) ?? asProblem(letting.error);
  return (
    <section aria-label="Your own figures">
      <h2>Your own figures</h2>
      <Checkbox
        label="Leads may see how my own visits went: how many, how often right at first, in how many minutes"
        checked={data?.agrees ?? false}
        disabled={!data || letting.isLoading}
        onChange={({ target }) => void letCount({ agrees: target.checked })}
      />
      {problem && <Notice kind="stop" says={problem.message} />}
    </section>
  );
}
