const words = (list: string): ReadonlySet<string> => new Set(list.trim().split(/\s+/));

/** Things on a screen and what one does with them: many in a sentence make a walk-through. */
export const SCREEN_WORDS = words(`
  click clicks clicking button buttons tab tabs menu dropdown drop-down icon icons toggle toggles slider sliders checkbox dashboard sidebar
  panel panels screen cursor scroll scrolling drag dragging paste copy settings setting upload export import download template templates
  folder file files app page website browser login log column cell corner box window link timeline layer layers slot slots pad mixer
  canvas editor preview save duplicate rename select selected pixel keyboard press hover
`);

/** Where something is, for people who can see it. */
export const POINTING_WORDS = words(`here there this these those that one left right top bottom up down over below above next`);

/** Words of a show about itself. */
export const CHANNEL_WORDS = words(`
  subscribe subscribing channel episode podcast video videos show description comments comment notes link links follow like bell review
  rating ratings stars newsletter listeners viewers chat stream webinar session slides slide recording recorded mute microphone mic agenda
  handout questions website members membership
`);

/** Words of an offer. */
export const OFFER_WORDS = words(`
  sponsor sponsored sponsoring sponsors code discount checkout percent free trial offer deal coupon promo shipping refund bundle sign
  upgrade supported brought partner package half price months bonus
`);

export const GREETING_WORDS = words(
  `hello hi hey welcome morning evening afternoon everybody everyone folks guys thanks thank joining glad goodbye bye cheers`,
);

export const WAITING_WORDS = words(`second sec minute moment loading load wait waiting hang hold bear come still working refresh connecting rendering sorry`);

export const SAYING_WORDS = words(`said says say goes asked told replied whispered shouted thought`);

export const NEGATIONS = words(
  `not no never nobody nothing none neither nor without isn't aren't wasn't weren't don't doesn't didn't can't couldn't won't wouldn't shouldn't haven't hasn't hadn't`,
);

export const MUST_WORDS = words(`should must need ought always never stop start make sure don't remember try avoid`);

export const ALL_WORDS = words(`every everybody everyone all always never nobody nothing most only any anybody none everything whole entire`);

export const FAMILY_WORDS = words(
  `mother father mum dad mom wife husband son daughter brother sister grandmother grandfather nan grandad kid kids child children baby uncle aunt friend`,
);

export const PAST_WORDS = words(`
  was were had did went came got said told gave took found saw thought knew felt left made put ran sat stood heard began brought bought
  kept lost met paid rang sent sold spent woke wrote broke fell held walked looked asked opened turned called phoned showed
`);

export const COMPARING_WORDS = words(
  `better worse more less bigger smaller faster slower cheaper best worst most least than rather instead opposite difference same`,
);
