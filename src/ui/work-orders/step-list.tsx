import { Fragment } from 'react';
import type { Ask } from '@/core/work/ask';
import type { Phase } from '@/core/work/procedure/step';

interface StepLine {
  readonly id: string;
  readonly title: string;
  readonly caution: string | null;
  readonly perSite: boolean;
  readonly phase: Phase | null;
  readonly why: string | null;
  readonly tools: readonly string[] | null;
  readonly consumables: readonly string[] | null;
  readonly asks: readonly Ask[] | null;
  readonly answers: Readonly<Record<string, string>>;
  readonly minutes: number | null;
  readonly state: 'open' | 'done' | 'not_done';
}

const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  prepare: 'Prepare',
  open: 'Open',
  plugs: 'Plugs',
  close: 'Close',
  prove: 'Prove',
};

const SIGNS = { open: '○', done: '✓', not_done: '✕' } as const;
const WORDS = { open: 'open', done: 'done', not_done: 'marked as not done' } as const;

/** The steps in the order of work, each with its hazard, what was answered and what was written down. Answered at the vehicle. */
export function StepList({ steps, sitesText }: { steps: readonly StepLine[]; sitesText: string }) {
  return (
    <ol className="steps">
      {steps.map((step, index) => (
        <Fragment key={step.id}>
          {step.phase && step.phase !== steps[index - 1]?.phase && <li className="phase">{PHASE_WORDS[step.phase]}</li>}
          <li className="step">
            <span className={step.state === 'open' ? 'soft' : 'doing'} title={WORDS[step.state]}>
              {step.perSite ? '◇' : SIGNS[step.state]}
              <span className="aloud">{WORDS[step.state]}</span>
            </span>
            <div>
              {index + 1}. {step.title}
              {step.perSite && <span className="soft"> · {sitesText}</span>}
              {step.caution && <div className="doubtful small">{step.caution}</div>}
              {step.asks
                ?.filter(({ key }) => step.answers[key])
                .map(({ key, what }) => (
                  <div key={key} className="small">
                    {what}: <strong>{step.answers[key]}</strong>
                  </div>
                ))}
              <Detail step={step} />
            </div>
          </li>
        </Fragment>
      ))}
    </ol>
  );
}

/** Why, what with, and what to write down: one press away, so that the list stays short. */
function Detail({ step: { why, tools, consumables, asks, minutes } }: { step: StepLine }) {
  if (!why) return null;
  const lines = [
    ['Tools', tools],
    ['Uses up', consumables],
    ['Write down', asks?.map(({ what }) => what) ?? null],
  ] as const;
  return (
    <details className="small">
      <summary>Why, and what with{minutes ? `, about ${minutes} min` : ''}</summary>
      <div className="soft">
        <div>{why}</div>
        {lines.map(([name, items]) =>
          items && items.length > 0 ? (
            <div key={name}>
              {name}: {items.join('; ')}
            </div>
          ) : null,
        )}
      </div>
    </details>
  );
}
