/** What a recording is, not what it is about: words that titles of recordings end on. */
export const FORMATS: ReadonlySet<string> = new Set(
  'audio best call chat class clip compare compared comparison conversation course day debate demo demonstration discussion draft edit episode event explained explainer export final full guide interview intro introduction lecture lesson lessons live livestream master meeting mistakes mix part panel phone-in podcast questions recording refresher review screen season series session show status stream talk talks test tips tour tutorial update version video walk walkthrough webinar workshop'.split(
    ' ',
  ),
);
