import type { Paragraph, Story } from '../document/story-model'
import { paragraphsOf } from '../document/stories'
import type { DocumentSession } from '../session'
import { paragraphText } from '../style/runs'

/** A paragraph in one face and size, for reading; `style` is the title of the style that owns its look. */
export interface PlainParagraph {
  readonly part: string
  readonly node: number
  readonly text: string
  readonly style: string
}

/** A story in the list of all paragraphs: where it begins there, and how many are its own. */
export interface PlainStory {
  readonly title: string
  readonly from: number
  readonly count: number
}

function all(session: DocumentSession): readonly { readonly paragraph: Paragraph; readonly story: Story }[] {
  return session.reading.stories.flatMap(story => paragraphsOf(story.blocks).map(paragraph => ({ paragraph, story })))
}

/** The document's stories, with where their paragraphs stand in the list of all. */
export function plainStories(session: DocumentSession): PlainStory[] {
  const list: { title: string; from: number; count: number }[] = []
  all(session).forEach(({ story: { title: story } }, at) => {
    const last = list.at(-1)
    if (last?.title === story) last.count++
    else list.push({ title: story, from: at, count: 1 })
  })
  return list
}

/** Paragraphs of all stories, in reading order, from one place in the list to another. */
export function plainParagraphs(session: DocumentSession, from: number, to: number): PlainParagraph[] {
  return all(session)
    .slice(from, to)
    .map(({ paragraph, story }) => ({
      part: paragraph.part,
      node: paragraph.node,
      text: paragraphText(paragraph),
      style: session.cascadeOf(paragraph.part).paragraph(paragraph, story.role).text.owner?.style.displayName ?? '',
    }))
}
