import { useState } from 'react';
import { Link } from 'react-router';
import { identifyRevision, mapTitle, type DisplayMap, type RevisionAnswers } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { recordTime, useClock } from '../state/clock.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { Notice } from '../ui/notice.js';
import type { Visit } from './use-visit.js';
import classes from './which-display.module.css';

export interface WhichDisplayProps {
  readonly bench: BenchView;
  readonly visit: Visit;
  readonly onTold: () => void;
}

/** Letters, as among the figures of check in, that mean nothing else there. */
const ANSWER_KEYS = ['F', 'I', 'J', 'L', 'O', 'T', 'V', 'Y'];

type Told = { readonly asks: string; readonly says: string };

/** Displays that look alike are told apart with the fewest questions; what the unit before turned out to carry comes first. */
export function WhichDisplay({ bench, visit, onTold }: WhichDisplayProps) {
  const { lookAlikes, batch } = bench;
  const [answers, setAnswers] = useState<RevisionAnswers>({});
  const [told, setTold] = useState<readonly Told[]>([]);
  const [isBatchAsked, setBatchAsked] = useState(false);
  const clock = useClock();
  const [find, { error, isLoading }] = api.useDisplayFoundMutation();
  const problem = asProblem(error);
  const title = (id: string): string => {
    const map = lookAlikes.find((m) => m.id === id);
    return map ? mapTitle(map) : id;
  };
  const take = async (mapId: string, how: readonly Told[]) => {
    const { state } = visit;
    if (!state) return;
    const body = { id: crypto.randomUUID(), seq: state.seq + 1, at: recordTime(clock), mapId, told: [...how] };
    const answer = await find({ unitId: bench.unit.id, visitId: state.visitId, body });
    if (answer.data) onTold();
  };
  const startOver = () => {
    setAnswers({});
    setTold([]);
    setBatchAsked(true);
  };
  const result = identifyRevision(lookAlikes, answers);
  const before = batch && !isBatchAsked ? lookAlikes.find((map) => map.id === batch.mapId) : undefined;
  return (
    <section className={classes['which']} aria-label="Which display is it" aria-live="polite">
      {problem && <Notice kind="stop" says={problem.message} />}
      {before && batch ? (
        <Before
          map={before}
          serial={batch.serial}
          isBusy={isLoading}
          onSame={() => void take(before.id, [{ asks: `As unit ${batch.serial} of this batch?`, says: 'the same' }])}
          onOther={() => setBatchAsked(true)}
        />
      ) : result.kind === 'ask' ? (
        <>
          <h3>{result.question.asks}</h3>
          <p className="soft">
            {lookAlikes.length} displays look like this.{' '}
            {result.mostLeft === 1 ? 'One question tells.' : `At most ${result.mostLeft} questions tell.`}
          </p>
          <div className={classes['answers']}>
            {result.question.answers.map(({ says }, i) => (
              <KeyButton
                key={says}
                hotkey={ANSWER_KEYS[i] ?? ''}
                onAct={() => {
                  setAnswers({ ...answers, [result.question.id]: says });
                  setTold([...told, { asks: result.question.asks, says }]);
                }}
              >
                {says}
              </KeyButton>
            ))}
            <KeyButton hotkey="E" look="care" onAct={() => setAnswers({ ...answers, [result.question.id]: null })}>
              Something else
            </KeyButton>
          </div>
        </>
      ) : result.kind === 'found' ? (
        <>
          <h3>It is a {title(result.map)}</h3>
          <p className="soft">{lookAlikes.find((map) => map.id === result.map)?.tellBy}</p>
          <div className={classes['answers']}>
            <KeyButton hotkey="D" look="main" busy={isLoading} onAct={() => void take(result.map, told)}>
              Yes, go on with it
            </KeyButton>
            <KeyButton hotkey="A" onAct={startOver}>
              Ask again
            </KeyButton>
          </div>
        </>
      ) : result.kind === 'alike' ? (
        <>
          <h3>Nothing a person can see tells these apart</h3>
          <div className={classes['answers']}>
            {result.maps.map((id, i) => (
              <KeyButton key={id} hotkey={ANSWER_KEYS[i] ?? ''} busy={isLoading} onAct={() => void take(id, told)}>
                {title(id)}
              </KeyButton>
            ))}
          </div>
        </>
      ) : (
        <>
          <Notice
            kind="care"
            title="No display of the library is like this"
            says="Hold the unit, and capture its menu in Library: a draft map results, and a second person confirms it."
          />
          <div className={classes['answers']}>
            <Link to="/library/displayMap/new">Capture it</Link>
            <KeyButton hotkey="A" onAct={startOver}>
              Ask again
            </KeyButton>
          </div>
        </>
      )}
    </section>
  );
}

interface BeforeProps {
  readonly map: DisplayMap;
  readonly serial: string;
  readonly isBusy: boolean;
  readonly onSame: () => void;
  readonly onOther: () => void;
}

function Before({ map, serial, isBusy, onSame, onOther }: BeforeProps) {
  return (
    <>
      <h3>
        {serial} of this batch carries a {mapTitle(map)}. This one too?
      </h3>
      <p className="soft">{map.tellBy}</p>
      <div className={classes['answers']}>
        <KeyButton hotkey="D" look="main" busy={isBusy} onAct={onSame}>
          The same
        </KeyButton>
        <KeyButton hotkey="N" onAct={onOther}>
          Not sure: ask me
        </KeyButton>
      </div>
    </>
  );
}
