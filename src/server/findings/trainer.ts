import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import {
  GRADES,
  type Grade,
  type Graded,
  nextPart,
  rightShare,
  TRAINER_PARTS,
  trainerPart,
} from '@/core/inspection/trainer';
import { ok } from '@/core/shared/result';
import { cohensKappa } from '@/core/stats/kappa';
import { seeded } from '@/core/stats/seeded';
import { people, trainerGrades } from '@/db/schema';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

const partOf = (number: number) => trainerPart(number, seeded(number + 1));

const gradeInput = z.object({
  plug: z.coerce
    .number()
    .int()
    .min(0)
    .max(TRAINER_PARTS - 1),
  said: z.enum(GRADES),
});

/** Keeps what a person makes of a drawn part, and says what it was. */
export const gradePlug = useCase({
  permission: 'grade trainer plugs',
  input: gradeInput,
  async run(deps, actor, { plug, said }): Promise<Outcome<{ readonly answer: Grade }>> {
    const { answer } = partOf(plug);
    await deps.db
      .insert(trainerGrades)
      .values({ fleetId: actor.fleetId, personId: actor.personId, plug, answer, said, saidAt: deps.now() });
    return ok({ answer });
  },
});

/** The next part for a person, how well they agree with the answers, and with each other. */
export const viewTrainer = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({
        personId: people.id,
        name: people.name,
        plug: trainerGrades.plug,
        answer: trainerGrades.answer,
        said: trainerGrades.said,
      })
      .from(trainerGrades)
      .innerJoin(people, eq(people.id, trainerGrades.personId))
      .where(eq(trainerGrades.fleetId, actor.fleetId))
      .orderBy(asc(trainerGrades.saidAt));
    const byPerson = new Map<string, { name: string; graded: Graded[] }>();
    for (const { personId, name, plug, answer, said } of rows) {
      const grader = byPerson.get(personId) ?? { name, graded: [] };
      grader.graded.push({ plug, answer: answer as Grade, given: said as Grade });
      byPerson.set(personId, grader);
    }
    const mine = byPerson.get(actor.personId)?.graded ?? [];
    const graders = [...byPerson.values()];
    return ok({
      part: partOf(nextPart(mine)),
      mine: {
        graded: mine.length,
        right: mine.filter(({ answer, given }) => answer === given).length,
        last: mine.at(-1) ?? null,
        weakest: [...GRADES]
          .filter((grade) => mine.some(({ answer }) => answer === grade))
          .sort((a, b) => rightShare(mine, a) - rightShare(mine, b))
          .slice(0, 3),
      },
      withAnswer: graders.map(({ name, graded }) => ({
        name,
        graded: graded.length,
        kappa: cohensKappa(graded.map(({ answer, given }) => [answer, given])),
      })),
      between: graders.flatMap((a, i) =>
        graders.slice(i + 1).map((b) => {
          const last = (graded: readonly Graded[]) => new Map(graded.map(({ plug, given }) => [plug, given]));
          const [left, right] = [last(a.graded), last(b.graded)];
          const pairs = [...left].flatMap(([plug, said]) => {
            const other = right.get(plug);
            return other ? [[said, other] as const] : [];
          });
          return { names: [a.name, b.name] as const, plugs: pairs.length, kappa: cohensKappa(pairs) };
        }),
      ),
    });
  },
});
