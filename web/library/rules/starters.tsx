import { useNavigate } from 'react-router';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import classes from '../library-form.module.css';

/** Rule packs that ship with the product: from general knowledge, checked by nobody. */
export function Starters() {
  const { data } = api.useStartersQuery(null);
  const [bring, bringing] = api.useBringStarterMutation();
  const navigate = useNavigate();
  const problem = asProblem(bringing.error);
  if (!data || data.length === 0) return null;
  return (
    <section className={classes['bring']} aria-label="Starter rule packs">
      <h2>Start from what ships with Decurio</h2>
      <p className="soft">
        From general knowledge and checked by nobody. Bring in the places you deliver to, then confirm each class with
        the authority there.
      </p>
      {problem && <Notice kind="stop" says={problem.message} />}
      <ul className={`${classes['list']} ${classes['columns']}`}>
        {data.map(({ id, name, place, classes: count }) => (
          <li key={id}>
            <span>
              <strong>{place}</strong>{' '}
              <span className="soft">
                {name}, {count === 1 ? 'one class' : `${count} classes`}
              </span>
            </span>
            <ActButton
              busy={bringing.isLoading && bringing.originalArgs === id}
              onAct={() => void bring(id).then((answer) => answer.data && void navigate(`/library/rulePack/${id}`))}
            >
              Bring in <span className="hidden-words">{place}</span>
            </ActButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
