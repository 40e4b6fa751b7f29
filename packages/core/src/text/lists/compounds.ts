/** What English compounds begin and end with. Chosen by hand for this program unless a list says otherwise. */

/** What English compounds begin and end with. */
export const COMPOUND_HEADS = new Set(
  'well long short high low self half part full non anti multi pre post ex ill old new one two three four five six seven eight nine ten twenty thirty forty fifty sixty seventy eighty ninety first second third last all ever far fast hard late early mid semi ultra cross cyber deep double single front back hand home open over under off on left right so state would'.split(
    ' ',
  ),
);

export const COMPOUND_TAILS = new Set(
  'known term time based like old year years up down out off in on over made to class level size sized free friendly quality end ended minded hand handed right wing run running looking called art be one two three four five six seven eight nine fashioned century step wide long paid driven back by law'.split(
    ' ',
  ),
);
