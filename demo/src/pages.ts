/** The pages of the sample site, in the order of its tree. */
import { about, questions } from './about-and-questions.ts'
import { home, visit } from './home-and-visit.ts'
import { bigTelescope, instruments, radio } from './instrument-pages.ts'
import { comet, friend, news, openNights } from './nights-and-news.ts'
import { PAGE_IDS, type DemoPage } from './page-parts.ts'

export const pages: readonly DemoPage[] = [
  {
    id: PAGE_IDS.home,
    title: 'Tarrowmoor Observatory',
    slug: '',
    description:
      'A small public observatory on a dark moor: open nights every clear Friday from October to March.',
    document: home,
  },
  {
    id: PAGE_IDS.visit,
    title: 'Visit',
    slug: 'visit',
    description: 'Opening hours, what it costs, how to get here and what to bring.',
    document: visit,
  },
  {
    id: PAGE_IDS.about,
    title: 'About',
    slug: 'about',
    description: 'Who runs Tarrowmoor, how it began, and how to become a friend.',
    document: about,
  },
  {
    id: PAGE_IDS.questions,
    title: 'Questions',
    slug: 'questions',
    description: 'What people ask before their first night at the dome.',
    document: questions,
  },
  {
    id: PAGE_IDS.openNights,
    title: 'Open nights',
    slug: 'open-nights',
    description: 'When the dome is open, what you will see, and what to bring.',
    document: openNights,
  },
  {
    id: PAGE_IDS.instruments,
    title: 'Instruments',
    slug: 'instruments',
    description: 'What Tarrowmoor looks with, and what each instrument is good for.',
    document: instruments,
  },
  {
    id: PAGE_IDS.bigTelescope,
    parentId: PAGE_IDS.instruments,
    inNavigation: false,
    title: 'The big telescope',
    slug: 'big-telescope',
    description: 'A mirror of sixty centimetres, ground in a village hall.',
    document: bigTelescope,
  },
  {
    id: PAGE_IDS.radio,
    parentId: PAGE_IDS.instruments,
    inNavigation: false,
    title: 'The radio dish',
    slug: 'radio-dish',
    description: 'Three metres of wire mesh that hears the Sun.',
    document: radio,
  },
  {
    id: PAGE_IDS.news,
    title: 'News',
    slug: 'news',
    description: 'What happened on the ridge, newest first.',
    document: news,
    more: { theme: 'moss' },
  },
  {
    id: PAGE_IDS.comet,
    parentId: PAGE_IDS.news,
    inNavigation: false,
    title: 'A comet over the moor',
    slug: 'comet',
    description: 'It is faint, it is green, and it will not be back for eight hundred years.',
    document: comet,
    more: { theme: 'moss', sharePicture: 'tmdusk' },
  },
  {
    id: PAGE_IDS.friend,
    inNavigation: false,
    title: 'Become a friend',
    slug: 'friend',
    description: 'Friends pay for mirrors, heaters and mince pies.',
    document: friend,
    more: { isListed: true },
  },
]
