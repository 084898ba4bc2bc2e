import type { StartSummary } from '~~/core/change/defaults/start-list'
import { familyName } from '~~/core/style/families'
import { kindTitles } from '~~/core/style/start-titles'
import type { TypeTarget } from '~~/core/change/set-type/wish'
import { roleTitle } from '~~/core/style/roles'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'

/** Something that a face can be set on, with what it is called in the list of such things. */
export interface TargetChoice {
  /** What it is, as one string: the list's value. */
  readonly id: string
  readonly title: string
  readonly on: TypeTarget
}

const choice = (on: TypeTarget, title: string): TargetChoice => ({ id: JSON.stringify(on), title, on })

/** All that a face can be set on in the document on the desk: what is selected first, then styles, roles, families, defaults. */
export function useTargets(starts: Readonly<Ref<readonly StartSummary[]>>) {
  const desk = useDesk()
  const styles = useStyles()
  return computed((): TargetChoice[] => {
    const { target, list } = styles
    const selected =
      target && (target.scope.kind === 'ranges' || target.scope.kind === 'frame')
        ? [choice(target.scope, `On ${target.words}`)]
        : []
    const used = list.filter(style => style.characters > 0)
    const roles = [...new Set(used.flatMap(style => (style.family === 'paragraph' && style.role ? [style.role] : [])))]
    const families = new Map<string, number>()
    for (const face of desk.census?.faces ?? [])
      if (face.status !== 'unnamed') families.set(face.family, (families.get(face.family) ?? 0) + face.characters)
    return [
      ...selected,
      ...[...used]
        .sort((a, b) => b.characters - a.characters)
        .map(({ family, name, displayName, characters }) =>
          choice(
            { kind: 'style', family, name },
            `On the ${family === 'paragraph' ? 'style' : familyName(family)} ${displayName}, ${counted(characters, 'character')}`,
          ),
        ),
      ...roles.map(role => choice({ kind: 'role', role }, `On all ${roleTitle(role)} styles`)),
      ...[...families]
        .sort(([, one], [, other]) => other - one)
        .map(([family, count]) =>
          choice({ kind: 'family', family }, `On all text in ${family}, ${counted(count, 'character')}`),
        ),
      ...starts.value.map(({ kind }) =>
        choice({ kind: 'default', start: kind }, `On what new ${kindTitles[kind].toLowerCase()} begins with`),
      ),
    ]
  })
}
