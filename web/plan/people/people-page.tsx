import { useState } from 'react';
import { useNavigate } from 'react-router';
import { type Crew, type CrewPerson, type Shop, type ShopPlace } from '@decurio/core';
import { documentSchemas, type LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import { PersonCard } from './person-card.js';
import { PlaceCard, ShopFields } from './place-card.js';
import classes from './people-page.module.css';

const NEW_CREW: Crew = { format: 'decurio-crew/1', id: 'house', name: 'Who works here', people: [] };
const NEW_SHOP: Shop = {
  format: 'decurio-shop/1',
  id: 'house',
  name: 'What there is to work at',
  stands: 4,
  weave: 2,
  otherKindS: 60,
  otherPlaceS: 30,
  proveAt: { bike: 'yard', scooter: 'yard' },
  places: [],
};
const USUAL = [1, 2, 3, 4, 5].flatMap((day) => [
  { day, from: '08:00', to: '12:00' },
  { day, from: '12:30', to: '16:30' },
]);

/** Who works here and when, and what there is to work at: what a plan is made of. */
export function PeoplePage() {
  const crew = api.useLibraryQuery('crew');
  const shop = api.useLibraryQuery('shop');
  const problem = asProblem(crew.error) ?? asProblem(shop.error);
  if (problem && (!crew.data || !shop.data))
    return (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void crew.refetch() }} page />
    );
  if (!crew.data || !shop.data) return <Busy />;
  const [crewEntry, shopEntry] = [
    crew.data[0] as LibraryEntry<'crew'> | undefined,
    shop.data[0] as LibraryEntry<'shop'> | undefined,
  ];
  return (
    <PeopleForm
      key={`${crewEntry?.version ?? 0} ${shopEntry?.version ?? 0}`}
      crew={crewEntry?.document ?? NEW_CREW}
      shop={shopEntry?.document ?? NEW_SHOP}
      versions={[crewEntry?.version ?? 0, shopEntry?.version ?? 0]}
    />
  );
}

interface PeopleFormProps {
  readonly crew: Crew;
  readonly shop: Shop;
  readonly versions: readonly [number, number];
}

function PeopleForm({ crew, shop, versions }: PeopleFormProps) {
  const navigate = useNavigate();
  const { who } = useSession();
  const mayEdit = who?.role !== 'technician';
  const draft = useDraft(`plan.people.${versions.join('.')}`, { crew, shop });
  const { crew: typedCrew, shop: typedShop } = draft.value;
  const [add, adding] = api.useAddDocumentMutation();
  const [slips, setSlips] = useState<Readonly<Record<string, string>>>({});
  const setPeople = (people: readonly CrewPerson[]) => draft.change({ crew: { ...typedCrew, people } });
  const setPlaces = (places: readonly ShopPlace[]) => draft.change({ shop: { ...typedShop, places } });
  const isChanged = JSON.stringify(draft.value) !== JSON.stringify({ crew, shop });
  const keep = async () => {
    const found = {
      ...prefixed('crew', slipsIn(documentSchemas.crew, typedCrew)),
      ...prefixed('shop', slipsIn(documentSchemas.shop, typedShop)),
    };
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    for (const [kind, document, was] of [
      ['crew', typedCrew, crew],
      ['shop', typedShop, shop],
    ] as const)
      if (JSON.stringify(document) !== JSON.stringify(was)) {
        const answer = await add({ kind, document });
        if (!answer.data) return;
      }
    draft.forget();
    void navigate('/plan');
  };
  const problem = asProblem(adding.error);
  return (
    <form
      className={classes['page']}
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <header className={classes['head']}>
        <div>
          <p className="cap">Plan</p>
          <h1>People and places</h1>
        </div>
        <div className={classes['acts']}>
          <ActButton onAct={() => void navigate('/plan')}>To the plan</ActButton>
          {mayEdit && (
            <ActButton look="main" type="submit" busy={adding.isLoading} disabled={!isChanged} onAct={() => undefined}>
              Keep it
            </ActButton>
          )}
        </div>
      </header>
      <Begun draft={{ begunAt: draft.begunAt, isOverNewer: false, startAfresh: draft.startAfresh }} />
      {problem && <Notice kind="stop" says={[problem.message, ...Object.values(problem.fields ?? {})].join(' ')} />}
      {Object.keys(slips).length > 0 && (
        <Notice kind="stop" title="Not kept yet" says={slipWords(slips, typedCrew, typedShop)} />
      )}
      <fieldset disabled={!mayEdit} className={classes['set']}>
        <legend className="cap">People</legend>
        {typedCrew.people.length === 0 && (
          <p className="soft">Nobody yet. Whoever is entered here is given work by the plan.</p>
        )}
        {typedCrew.people.map((person, i) => (
          <PersonCard
            key={person.id}
            person={person}
            slipIn={(field) => slips[`crew.people.${i}.${field}`]}
            onChange={(next) => setPeople(typedCrew.people.map((each, at) => (at === i ? next : each)))}
            onRemove={() => setPeople(typedCrew.people.filter((_, at) => at !== i))}
          />
        ))}
        {mayEdit && (
          <ActButton
            onAct={() =>
              setPeople([
                ...typedCrew.people,
                {
                  id: freeId('person', typedCrew.people),
                  name: '',
                  signInName: null,
                  skills: ['bench', 'ride'],
                  hours: USUAL,
                  also: [],
                  away: [],
                },
              ])
            }
          >
            Another person
          </ActButton>
        )}
      </fieldset>
      <fieldset disabled={!mayEdit} className={classes['set']}>
        <legend className="cap">Stands, yard, roller and posts</legend>
        <ShopFields
          shop={typedShop}
          slipIn={(field) => slips[`shop.${field}`]}
          onChange={(next) => draft.change({ shop: next })}
        />
        {typedShop.places.map((place, i) => (
          <PlaceCard
            key={place.id}
            place={place}
            slipIn={(field) => slips[`shop.places.${i}.${field}`]}
            onChange={(next) => setPlaces(typedShop.places.map((each, at) => (at === i ? next : each)))}
            onRemove={() => setPlaces(typedShop.places.filter((_, at) => at !== i))}
          />
        ))}
        {mayEdit && (
          <div className={classes['acts']}>
            {(['yard', 'roller', 'post'] as const).map((kind) => (
              <ActButton
                key={kind}
                onAct={() =>
                  setPlaces([
                    ...typedShop.places,
                    {
                      id: freeId(kind, typedShop.places),
                      name: nameFor(kind, typedShop.places),
                      kind,
                      hours: USUAL,
                      also: [],
                      shut: [],
                      packsV: null,
                      chargeA: kind === 'post' ? 4 : null,
                    },
                  ])
                }
              >
                {kind === 'yard' ? 'A yard' : kind === 'roller' ? 'A roller' : 'A charging post'}
              </ActButton>
            ))}
          </div>
        )}
      </fieldset>
    </form>
  );
}

/** Whose field needs another look, and why; the first few. */
function slipWords(slips: Readonly<Record<string, string>>, crew: Crew, shop: Shop): string {
  const words = Object.entries(slips).map(([path, says]) => {
    const [of, , at] = path.split('.');
    const name = (of === 'crew' ? crew.people : shop.places)[Number(at)]?.name;
    return name === undefined ? says : `${name === '' ? 'Who has no name yet' : name}: ${says}`;
  });
  return [...new Set(words)].slice(0, 4).join(' ');
}

const prefixed = (by: string, slips: Readonly<Record<string, unknown>>): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(slips).map(([path, says]) => [`${by}.${path}`, String(says)]));

function freeId(kind: string, all: readonly { readonly id: string }[]): string {
  for (let n = all.length + 1; ; n++) if (!all.some(({ id }) => id === `${kind}-${n}`)) return `${kind}-${n}`;
}

function nameFor(kind: ShopPlace['kind'], all: readonly ShopPlace[]): string {
  const count = all.filter((place) => place.kind === kind).length;
  const name = { yard: 'Yard', roller: 'Roller', post: 'Post' }[kind];
  return kind === 'post' || count > 0 ? `${name} ${count + 1}` : name;
}
