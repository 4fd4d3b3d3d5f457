import { useNavigate } from 'react-router';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import classes from './library-form.module.css';

export interface FormFootProps {
  readonly submit: () => void;
  readonly isBusy: boolean;
  readonly isNew: boolean;
  readonly problem: string | null;
  readonly slips: number;
  readonly says: string;
  readonly back: string;
}

/** How a form ends: keep it as the next version, or leave it. */
export function FormFoot({ submit, isBusy, isNew, problem, slips, says, back }: FormFootProps) {
  const navigate = useNavigate();
  return (
    <>
      {slips > 0 && (
        <Notice
          kind="stop"
          says={`${slips} ${slips === 1 ? 'field needs' : 'fields need'} another look. Nothing was kept yet, and nothing you typed is lost.`}
        />
      )}
      {problem && <Notice kind="stop" says={problem} />}
      <div className={classes['acts']}>
        <ActButton look="main" busy={isBusy} onAct={submit}>
          {isNew ? 'Keep' : 'Keep as a new version'}
        </ActButton>
        <ActButton onAct={() => void navigate(back)}>Leave it</ActButton>
        <span className="soft">{says}</span>
      </div>
    </>
  );
}
