import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical } from 'lucide-react'
import type { ReactNode } from 'react'

/**
 * A list whose entries are put in another order: by dragging the handle at their left, or with the focus on it by space, arrows, space.
 * `names` say what each entry is, for those who do not see it.
 */
export function SortableList({
  label,
  ids,
  names,
  className = '',
  onMove,
  children,
}: {
  label: string
  ids: string[]
  names: string[]
  className?: string
  /** the entry at `from` was put at `to` */
  onMove: (from: number, to: number) => void
  children: (id: string, i: number) => ReactNode
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul aria-label={label}>
          {ids.map((id, i) => (
            <Entry key={id} id={id} name={names[i] ?? ''} className={className}>
              {children(id, i)}
            </Entry>
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  )
}

function Entry({
  id,
  name,
  className,
  children,
}: {
  id: string
  name: string
  className: string
  children: ReactNode
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id })
  return (
    <li
      ref={setNodeRef}
      data-entry={name}
      className={`${className} ${isDragging ? 'relative z-10 shadow-sm' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), ...(transition ? { transition } : {}) }}
    >
      <button
        type="button"
        className="-ml-1 shrink-0 cursor-grab touch-none text-ink3"
        {...attributes}
        {...listeners}
        aria-label={`Put ${name} elsewhere in the list`}
        title="Drag it up or down"
      >
        <GripVertical size={13} />
      </button>
      {children}
    </li>
  )
}
