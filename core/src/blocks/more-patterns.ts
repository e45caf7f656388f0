/** Ready sections for what most sites need, by what people come for. All text is asked for, so each takes on the site's look and words. */
import type { JsonObject } from '../page/json.ts'
import {
  ask,
  button,
  card,
  column,
  heading,
  panel,
  stack,
  text,
  voice,
  type PatternSketch,
  type Sketch,
} from './sketch.ts'

type Look = JsonObject

const section = (inside: readonly Sketch[], look: Look = {}, base: JsonObject = {}): Sketch => ({
  kind: 'section',
  look,
  sizes: { base },
  inside,
})
const reading = (...inside: Sketch[]): Sketch => section(inside, {}, { width: 'reading' })
const columns = (...inside: Sketch[]): Sketch => ({
  kind: 'columns',
  sizes: { base: { gap: 'l' }, narrow: { direction: 'down' } },
  inside,
})
const row = (base: JsonObject, ...inside: Sketch[]): Sketch => ({
  kind: 'row',
  sizes: { base, narrow: { direction: 'down' } },
  inside,
})
const centred = (sketch: Sketch): Sketch => ({
  ...sketch,
  sizes: { ...sketch.sizes, base: { ...sketch.sizes?.base, align: 'center' } },
})
const picture = (ratio: string): Sketch => ({ kind: 'picture', sizes: { base: { ratio } } })
const point = (icon: string, title: string, variant = 'above'): Sketch => ({
  kind: 'feature',
  content: { icon, heading: '', level: 3 },
  prompts: { heading: title },
  look: { variant },
})
const buttons = (...words: readonly string[]): Sketch => ({
  kind: 'button-group',
  inside: words.map((one, i) => ({ ...button(ask(one)), look: { variant: i === 0 ? 'solid' : 'line' } })),
})
const table = (caption: string, ...rows: readonly (readonly string[])[]): Sketch => ({
  kind: 'table',
  content: { rows: rows.map((cells) => [...cells]) },
  prompts: { caption },
})
const person = (name: string): Sketch =>
  column(picture('1/1'), heading(ask(name), 3), text(ask('What they do here.'), 'note'))
const price = (name: string): Sketch => ({
  ...column(
    heading(ask(name), 3),
    text(ask('Price'), 'lead'),
    { kind: 'list', look: { variant: 'ticks' } },
    button(ask('Choose this one')),
  ),
  look: { surface: 'tint', radius: 'm' },
})

export const MORE_PATTERNS: readonly PatternSketch[] = [
  {
    id: 'opening-centred',
    title: 'Centred introduction',
    about: 'A large heading, one line and two buttons in the middle',
    synonyms: ['introduction', 'hero', 'welcome', 'headline'],
    sketch: section(
      [
        centred(heading(ask('What this is, in a few words'), 2, 'headline')),
        centred(text(ask('One line on why it is worth reading on.'), 'lead')),
        { ...buttons('Main action', 'More about it'), sizes: { base: { justify: 'center' } } },
      ],
      {},
      { width: 'reading' },
    ),
  },
  {
    id: 'opening-split',
    title: 'Introduction and facts',
    about: 'An introduction at the left, three facts at the right',
    synonyms: ['introduction', 'overview', 'key facts', 'at a glance'],
    sketch: section([
      columns(
        column(heading(ask('What this is about'), 2), text(ask('Two or three lines to begin with.'), 'lead')),
        column(
          point('calendar', 'First fact', 'beside'),
          point('place', 'Second fact', 'beside'),
          point('ticket', 'Third fact', 'beside'),
        ),
      ),
    ]),
  },
  {
    id: 'picture-beside-text',
    title: 'Picture and text',
    about: 'A picture at the left, a heading and text at the right',
    synonyms: ['image and text', 'split', 'media object', 'pictures and text'],
    sketch: section([
      row(
        { align: 'center' },
        picture('4/3'),
        stack(heading(ask('What the picture shows'), 2), text(ask('What there is to say about it.'))),
      ),
    ]),
  },
  {
    id: 'wide-picture',
    title: 'Wide picture',
    about: 'One picture across the page, with a line under it',
    synonyms: ['image', 'photo', 'banner', 'full width', 'pictures and text'],
    sketch: section([picture('16/9'), text(ask('What can be seen.'), 'note')]),
  },
  {
    id: 'picture-grid',
    title: 'Picture gallery',
    about: 'A heading and six pictures',
    synonyms: ['gallery', 'photos', 'grid', 'portfolio', 'pictures and text'],
    sketch: section([
      heading(ask('What there is to see'), 2),
      {
        kind: 'gallery',
        sizes: { base: { columns: '3' }, narrow: { columns: '2' } },
        inside: Array.from({ length: 6 }, () => ({ kind: 'picture' })),
      },
    ]),
  },
  {
    id: 'three-points',
    title: 'Three points',
    about: 'Three short points with icons',
    synonyms: ['features', 'benefits', 'icons', 'reasons', 'services'],
    sketch: section([
      heading(ask('Why people come'), 2),
      columns(
        column(point('star', 'First reason')),
        column(point('heart', 'Second reason')),
        column(point('people', 'Third reason')),
      ),
    ]),
  },
  {
    id: 'four-steps',
    title: 'Steps',
    about: 'Four numbered steps, one after another',
    synonyms: ['how it works', 'process', 'timeline', 'instructions'],
    sketch: section(
      [
        heading(ask('How it works'), 2),
        columns(
          ...['First', 'Then', 'After that', 'At the end'].map((step, i) =>
            column(text(`${i + 1}`, 'lead'), heading(ask(step), 3), text(ask('What happens.'))),
          ),
        ),
      ],
      { surface: 'tint' },
    ),
  },
  {
    id: 'team',
    title: 'Team',
    about: 'Three people with photo, name and role',
    synonyms: ['people', 'staff', 'about us', 'board', 'who we are'],
    sketch: section([
      heading(ask('Who we are'), 2),
      columns(person('First name'), person('Second name'), person('Third name')),
    ]),
  },
  {
    id: 'one-person',
    title: 'Portrait',
    about: 'One person: photo, name and a few lines',
    synonyms: ['people', 'profile', 'biography', 'author', 'contact person'],
    sketch: section([
      row(
        { align: 'center', share: 'own' },
        { kind: 'picture', sizes: { base: { ratio: '1/1', most: 'small' } }, look: { radius: 'm' } },
        stack(heading(ask('Name'), 2), text(ask('Role'), 'note'), text(ask('A few lines about them.'))),
      ),
    ]),
  },
  {
    id: 'testimonials',
    title: 'What people say',
    about: 'A heading and what three people said',
    synonyms: ['people', 'testimonials', 'reviews', 'quotes', 'customers', 'feedback'],
    sketch: section(
      [
        heading(ask('What visitors say'), 2),
        {
          kind: 'voices',
          sizes: { base: {}, narrow: { shows: '1' } },
          inside: ['one', 'another', 'a third'].map((who) => voice(ask(`What ${who} said.`), ask('Name'))),
        },
      ],
      { surface: 'tint' },
    ),
  },
  {
    id: 'long-quote',
    title: 'Quotation',
    about: 'A longer quotation with its author and source',
    synonyms: ['people', 'quote', 'citation', 'press', 'review'],
    sketch: reading({
      kind: 'quote',
      look: { variant: 'large' },
      prompts: { who: 'Who said it', source: 'Where it was said' },
    }),
  },
  {
    id: 'prices',
    title: 'Prices',
    about: 'Three offers side by side, with what each has',
    synonyms: ['pricing', 'plans', 'tickets', 'offers', 'membership'],
    sketch: section([
      heading(ask('What it costs'), 2),
      columns(price('First offer'), price('Second offer'), price('Third offer')),
    ]),
  },
  {
    id: 'price-list',
    title: 'Price list',
    about: 'A table of prices and what they are for',
    synonyms: ['prices', 'fees', 'admission', 'table', 'rates'],
    sketch: reading(
      heading(ask('Prices'), 2),
      table('What people pay', ['For', 'Price'], ['', ''], ['', ''], ['', '']),
      text(ask('Reductions, and how to pay.'), 'note'),
    ),
  },
  {
    id: 'questions',
    title: 'Questions',
    about: 'An accordion of questions and their answers',
    synonyms: ['FAQ', 'accordion', 'help', 'answers', 'support'],
    sketch: reading(heading(ask('Questions people ask'), 2), {
      kind: 'panels',
      inside: ['First', 'Second', 'Third', 'Fourth'].map((one) =>
        panel(ask(`${one} question`), text(ask('Its answer.'))),
      ),
    }),
  },
  {
    id: 'two-answers',
    title: 'Questions in two columns',
    about: 'Four questions with their answers, open to read',
    synonyms: ['help', 'questions', 'answers'],
    sketch: section([
      heading(ask('Good to know'), 2),
      columns(
        column(
          ...['First', 'Second'].flatMap((one) => [
            heading(ask(`${one} question`), 3),
            text(ask('Its answer.')),
          ]),
        ),
        column(
          ...['Third', 'Fourth'].flatMap((one) => [
            heading(ask(`${one} question`), 3),
            text(ask('Its answer.')),
          ]),
        ),
      ),
    ]),
  },
  {
    id: 'contact',
    title: 'Contact',
    about: 'How to reach you: address, phone and e-mail',
    synonyms: ['contact', 'address', 'phone', 'e-mail', 'directions'],
    sketch: section([
      heading(ask('How to reach us'), 2),
      columns(
        column(point('place', 'Where we are', 'beside')),
        column(point('phone', 'Call us', 'beside')),
        column(point('mail', 'Write to us', 'beside')),
      ),
    ]),
  },
  {
    id: 'opening-hours',
    title: 'Opening hours',
    about: 'A table of days and times, with what differs',
    synonyms: ['contact', 'hours', 'times', 'when', 'visit'],
    sketch: reading(
      heading(ask('Opening hours'), 2),
      table('When you are open', ['Day', 'Open'], ['', ''], ['', ''], ['', '']),
      text(ask('Holidays and exceptions.'), 'note'),
    ),
  },
  {
    id: 'getting-here',
    title: 'Getting here',
    about: 'A picture of the way, and three ways to come',
    synonyms: ['contact', 'directions', 'map', 'travel', 'parking'],
    sketch: section([
      row(
        { align: 'center' },
        stack(
          heading(ask('Getting here'), 2),
          heading(ask('By bus'), 3),
          text(ask('Which line, and where to get off.')),
          heading(ask('By car'), 3),
          text(ask('Where to park.')),
        ),
        picture('4/3'),
      ),
    ]),
  },
  {
    id: 'next-events',
    title: 'Next events',
    about: 'Three events as cards with date and place',
    synonyms: ['events', 'calendar', 'programme', 'talks', 'agenda', 'dates'],
    sketch: section([
      heading(ask('What is on'), 2),
      row({ gap: 'm' }, ...['First event', 'Second event', 'Third event'].map((title) => card(ask(title)))),
      button(ask('All events')),
    ]),
  },
  {
    id: 'programme',
    title: 'Programme',
    about: 'A table of times and what happens then',
    synonyms: ['events', 'schedule', 'timetable', 'agenda'],
    sketch: reading(
      heading(ask('Programme'), 2),
      table('What happens when', ['Time', 'What'], ['', ''], ['', ''], ['', ''], ['', '']),
    ),
  },
  {
    id: 'one-event',
    title: 'Event banner',
    about: 'One event on a dark band: what, when, and a button',
    synonyms: ['events', 'banner', 'announcement', 'registration'],
    sketch: section(
      [
        text(ask('When and where'), 'label'),
        heading(ask('What happens'), 2, 'headline'),
        text(ask('One line that makes people come.'), 'lead'),
        buttons('Book a place', 'More about it'),
      ],
      { surface: 'night' },
    ),
  },
  {
    id: 'newsletter',
    title: 'Invitation to join',
    about: 'A short invitation with two buttons, in the middle',
    synonyms: ['call to action', 'CTA', 'join', 'subscribe', 'newsletter', 'donate'],
    sketch: section(
      [
        centred(heading(ask('Become part of it'), 2)),
        centred(text(ask('What people get, and what it costs.'))),
        { ...buttons('Join', 'Read more first'), sizes: { base: { justify: 'center' } } },
      ],
      { surface: 'tint' },
      { width: 'reading' },
    ),
  },
  {
    id: 'picture-action',
    title: 'Offer with picture',
    about: 'A picture, a question and a button next to it',
    synonyms: ['call to action', 'CTA', 'banner', 'offer'],
    sketch: section(
      [
        row(
          { align: 'center' },
          stack(
            heading(ask('What people can do next'), 2),
            text(ask('One line on it.')),
            button(ask('Do it now')),
          ),
          picture('3/2'),
        ),
      ],
      { surface: 'night' },
    ),
  },
  {
    id: 'two-texts',
    title: 'Two columns of text',
    about: 'Two headings with text, side by side',
    synonyms: ['columns', 'compare', 'two columns'],
    sketch: section([
      columns(
        column(heading(ask('First'), 2), text(ask('Write here.'))),
        column(heading(ask('Second'), 2), text(ask('Write here.'))),
      ),
    ]),
  },
  {
    id: 'article-text',
    title: 'Article text',
    about: 'A heading, an introduction and text, as wide as is good to read',
    synonyms: ['blog', 'story', 'long text', 'body'],
    sketch: reading(
      heading(ask('Heading'), 2),
      text(ask('The introduction.'), 'lead'),
      text(ask('The text.')),
    ),
  },
  {
    id: 'downloads',
    title: 'Downloads',
    about: 'A heading and buttons that lead to files',
    synonyms: ['files', 'PDF', 'documents', 'links'],
    sketch: reading(
      heading(ask('To download'), 2),
      text(ask('What the files are.')),
      buttons('First file', 'Second file'),
    ),
  },
]
