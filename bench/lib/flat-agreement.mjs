// Agreement as it is reckoned on the flat talks: each recording's first picks, one for two minutes (2 to 8), are worth the
// mean grade, by the second, that two of the readers gave them; 0 is the mean over the whole talk, 1 a reader's own first
// picks judged by the other two. A pick that is missing counts nothing.
const mean = (list) => (list.length === 0 ? 0 : list.reduce((sum, one) => sum + one, 0) / list.length);

function bySecond(talk, marks) {
  const grades = new Float32Array(Math.ceil(talk.durationMs / 1_000) + 1);
  for (const { first, end, grade } of marks) {
    const to = talk.sentences[end - 1].endMs / 1_000;
    for (let t = Math.floor(talk.sentences[first].startMs / 1_000); t < to; t += 1) grades[t] = Math.max(grades[t], grade / 5);
  }
  return grades;
}
function over(grades, { startMs, endMs }) {
  const from = Math.floor(startMs / 1_000);
  const to = Math.max(from + 1, Math.ceil(endMs / 1_000));
  let sum = 0;
  for (let t = from; t < to; t += 1) sum += grades[t] ?? 0;
  return sum / (to - from);
}
const spanOf = (talk, { first, end }) => ({ startMs: talk.sentences[first].startMs, endMs: talk.sentences[end - 1].endMs });

/** @param list marked talks, @param picks for each its ranked passages in ms */
export function agreementOf(list, picks) {
  const rows = list.map(({ talk, marks }, i) => {
    const count = Math.min(8, Math.max(2, Math.round(talk.durationMs / 120_000)));
    const grades = marks.map((own) => bySecond(talk, own));
    const byOthers = (r, passage) => mean(grades.filter((_, k) => k !== r).map((one) => over(one, passage)));
    const first = picks[i].slice(0, count);
    const never = marks.flatMap((own) => own.filter(({ grade }) => grade === 0).map((mark) => spanOf(talk, mark)));
    const kept = (passage) =>
      mean(
        marks.map((own) =>
          own.some((mark) => {
            if (mark.grade === 0) return false;
            const { startMs, endMs } = spanOf(talk, mark);
            const shared = Math.min(endMs, passage.endMs) - Math.max(startMs, passage.startMs);
            return shared / (Math.max(endMs, passage.endMs) - Math.min(startMs, passage.startMs)) >= 0.5;
          })
            ? 1
            : 0,
        ),
      );
    return {
      found: mean(marks.map((_, r) => first.reduce((sum, one) => sum + byOthers(r, one), 0) / count)),
      reader: mean(
        marks.map((own, r) =>
          mean(
            own
              .filter(({ grade }) => grade > 0)
              .slice(0, count)
              .map((mark) => byOthers(r, spanOf(talk, mark))),
          ),
        ),
      ),
      random: mean(grades.map((one) => mean([...one]))),
      never: first.filter(({ startMs, endMs }) => never.some((one) => Math.min(endMs, one.endMs) - Math.max(startMs, one.startMs) > (endMs - startMs) / 2))
        .length,
      kept: mean(first.map(kept)),
      picks: first.length,
      wanted: count,
    };
  });
  const of = (key) => mean(rows.map((one) => one[key]));
  const total = (key) => rows.reduce((sum, one) => sum + one[key], 0);
  return {
    agreement: (of('found') - of('random')) / (of('reader') - of('random')),
    never: total('never'),
    kept: of('kept'),
    picks: total('picks'),
    wanted: total('wanted'),
  };
}

/** The best passages of whole sentences, 15 to 75 s, by the mean of a number of each sentence; none over another. */
export function picksOf(sentences, worth, most = 8) {
  const all = [];
  for (let first = 0; first < sentences.length; first += 1) {
    let sum = 0;
    let time = 0;
    for (let end = first; end < sentences.length; end += 1) {
      const ms = sentences[end].endMs - sentences[end].startMs;
      sum += worth[end] * ms;
      time += ms;
      const span = { startMs: sentences[first].startMs, endMs: sentences[end].endMs };
      if (span.endMs - span.startMs > 75_000) break;
      if (span.endMs - span.startMs >= 15_000) all.push({ ...span, score: sum / time });
    }
  }
  all.sort((a, b) => b.score - a.score);
  const kept = [];
  for (const one of all) if (kept.length < most && kept.every((other) => other.endMs <= one.startMs || one.endMs <= other.startMs)) kept.push(one);
  return kept;
}
