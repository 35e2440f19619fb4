// The form as it is laid out: sections with their fields, moved by dragging or by keys; beside them the fields not asked.
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import { rectSortingStrategy, SortableContext, sortableKeyboardCoordinates, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Box, Button, Flex, Heading, HStack, IconButton, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import {
  addSection,
  askedIn,
  filterClause,
  moveSection,
  placeField,
  takeOut,
  type FormField,
  type FormLayout,
  type FormSection,
  type LayoutFinding,
} from '@dellum/core';
import type { FieldView, RegisterView } from '@dellum/contract';
import { ArrowDown, ArrowUp, GripVertical, Plus, TriangleAlert, X } from 'lucide-react';
import type { ReactNode } from 'react';

/** What is selected: a field, a section, or the form as a whole. */
export type Selected = { readonly field: string } | { readonly section: string } | undefined;

interface LayoutCanvasProps {
  readonly register: RegisterView;
  readonly layout: FormLayout;
  readonly findings: readonly LayoutFinding[];
  readonly selected: Selected;
  /** How a field is asked, in words. */
  controlOf(field: FormField): string | null;
  select(selected: Selected): void;
  change(layout: FormLayout): void;
}

/** The droppable ids of places: a field by its key, a section and the fields not asked by a mark before. */
const sectionId = (id: string) => `section ${id}`;
const unasked = 'not asked';

function dropped(layout: FormLayout, { active, over }: DragEndEvent): FormLayout {
  const key = String(active.id);
  const target = over && String(over.id);
  if (target === null || target === key) return layout;
  if (target === unasked) return takeOut(layout, key);
  const section = layout.sections.find(({ id, fields }) => target === sectionId(id) || fields.some(({ field }) => field === target));
  // Dropped on a field that is not asked: it goes out as well.
  if (!section) return takeOut(layout, key);
  const at = section.fields.findIndex(({ field }) => field === target);
  if (at < 0) return placeField(layout, key, section.id, null);
  // Dragged down, it goes behind the field that it is dropped on.
  const own = section.fields.findIndex(({ field }) => field === key);
  const before = own >= 0 && own < at ? (section.fields[at + 1]?.field ?? null) : target;
  return placeField(layout, key, section.id, before);
}

export function LayoutCanvas(props: LayoutCanvasProps) {
  const { register, layout, findings, selected, select, change } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const asked = new Set(askedIn(layout).map(({ field }) => field));
  const rest = register.fields.filter(({ key }) => !asked.has(key));
  const nameOf = (id: string | number): string => {
    const name = String(id);
    if (name === unasked) return 'the fields that are not asked';
    const section = layout.sections.find((one) => sectionId(one.id) === name);
    if (section) return section.heading || 'a section';
    return register.fields.find(({ key }) => key === name)?.heading ?? name;
  };
  const picked = (id: string | number) => `${nameOf(id)} is picked up. Move it by the arrow keys, drop it by Space, leave it by Escape.`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => picked(active.id),
    onDragOver: ({ active, over }) =>
      over?.id === active.id
        ? picked(active.id)
        : over
          ? `${nameOf(active.id)} is over ${nameOf(over.id)}.`
          : `${nameOf(active.id)} is over no place.`,
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(active.id)} was dropped at ${nameOf(over.id)}.` : `${nameOf(active.id)} stays where it was.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
  };
  const lastSection = layout.sections.at(-1);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        announcements,
        screenReaderInstructions: { draggable: 'Space picks the field up, the arrow keys move it, Space drops it.' },
      }}
      onDragEnd={(event) => change(dropped(layout, event))}
    >
      <Flex direction={{ base: 'column', md: 'row' }} minH="100%">
        <Place id={unasked}>
          <Box
            as="section"
            aria-label="Not asked"
            w={{ base: '100%', md: '190px' }}
            flexShrink={0}
            p="4"
            borderRightWidth={{ md: '1px' }}
            borderColor="line"
            bg="paper"
            h="100%"
          >
            <Text fontWeight="bold" mb="2">
              Not asked
            </Text>
            <SortableContext items={rest.map(({ key }) => key)}>
              <Stack gap="1.5">
                {rest.map((field) => (
                  <Resting
                    key={field.key}
                    field={field}
                    add={
                      lastSection &&
                      (() => {
                        change(placeField(layout, field.key, lastSection.id, null));
                        select({ field: field.key });
                      })
                    }
                  />
                ))}
                {rest.length === 0 && <Text color="inkSoft">Every field of {register.title} is asked.</Text>}
              </Stack>
            </SortableContext>
          </Box>
        </Place>
        <Stack flex="1" minW="0" gap="4" p="4">
          {layout.sections.map((section, at) => (
            <SectionCard key={section.id} {...props} section={section} at={at}>
              <SortableContext items={section.fields.map(({ field }) => field)} strategy={rectSortingStrategy}>
                <SimpleGrid columns={{ base: 1, xl: section.columns }} gap="2" minH="46px">
                  {section.fields.map((one) => (
                    <FieldCard
                      key={one.field}
                      {...props}
                      one={one}
                      isSelected={selected !== undefined && 'field' in selected && selected.field === one.field}
                      fault={findings.some(({ field }) => field === one.field)}
                    />
                  ))}
                  {section.fields.length === 0 && <Text color="inkSoft">Drag fields to this place.</Text>}
                </SimpleGrid>
              </SortableContext>
            </SectionCard>
          ))}
          <Button
            alignSelf="start"
            onClick={() => {
              const id = newSectionId(layout);
              change(addSection(layout, id, 'New section'));
              select({ section: id });
            }}
          >
            <Plus size={13} aria-hidden /> Add a section
          </Button>
        </Stack>
      </Flex>
    </DndContext>
  );
}

function newSectionId({ sections }: FormLayout): string {
  for (let number = sections.length + 1; ; number++) if (!sections.some(({ id }) => id === `section-${number}`)) return `section-${number}`;
}

/** A place on which a field can be dropped. */
function Place({ id, children }: { id: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <Box ref={setNodeRef} outline={isOver ? '2px solid' : undefined} outlineColor="growth.solid" outlineOffset="-2px" rounded="l2">
      {children}
    </Box>
  );
}

function SectionCard({
  section,
  at,
  register,
  layout,
  findings,
  selected,
  select,
  change,
  children,
}: LayoutCanvasProps & { readonly section: FormSection; readonly at: number; readonly children: ReactNode }) {
  const isSelected = selected !== undefined && 'section' in selected && selected.section === section.id;
  const name = section.heading || 'A section without a heading';
  return (
    <Place id={sectionId(section.id)}>
      <Box
        as="section"
        aria-label={name}
        borderWidth="1px"
        borderColor={isSelected ? 'damson.border' : 'line'}
        rounded="l3"
        p="3"
        bg="card"
      >
        <HStack justify="space-between" mb="2" gap="2">
          <Box asChild textAlign="start" cursor="pointer" flex="1" minW="0">
            <button type="button" aria-pressed={isSelected} onClick={() => select({ section: section.id })}>
              <Heading as="h2" fontSize="sm" color={section.heading === '' ? 'inkSoft' : undefined}>
                {findings.some((finding) => finding.section === section.id) && <FaultMark />} {name}
              </Heading>
              {section.where && (
                <Text fontSize="xs" color="growth.fg">
                  only where {filterClause(section.where, (key) => register.fields.find((field) => field.key === key)?.heading ?? key)}
                </Text>
              )}
            </button>
          </Box>
          <HStack gap="0">
            <IconButton
              aria-label={`Move ${name} up`}
              size="2xs"
              variant="ghost"
              disabled={at === 0}
              onClick={() => change(moveSection(layout, section.id, -1))}
            >
              <ArrowUp size={12} />
            </IconButton>
            <IconButton
              aria-label={`Move ${name} down`}
              size="2xs"
              variant="ghost"
              disabled={at === layout.sections.length - 1}
              onClick={() => change(moveSection(layout, section.id, 1))}
            >
              <ArrowDown size={12} />
            </IconButton>
          </HStack>
        </HStack>
        {children}
      </Box>
    </Place>
  );
}

const FaultMark = () => (
  <TriangleAlert size={13} style={{ display: 'inline', color: 'var(--chakra-colors-amber-fg)' }} aria-label="has a fault" />
);

/** What moves while it is dragged. */
const dragged = ({
  transform,
  transition,
  isDragging,
}: Pick<ReturnType<typeof useSortable>, 'transform' | 'transition' | 'isDragging'>) => ({
  transform: CSS.Translate.toString(transform),
  ...(transition !== undefined && { transition }),
  ...(isDragging && { zIndex: 1, position: 'relative' as const }),
});

/** A field that the form does not ask. */
function Resting({ field, add }: { field: FieldView; add: (() => void) | undefined }) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, ...moving } = useSortable({ id: field.key });
  return (
    <HStack ref={setNodeRef} style={dragged(moving)} gap="1" bg="card" borderWidth="1px" borderColor="line" rounded="l2" px="1" py="0.5">
      <IconButton
        ref={setActivatorNodeRef}
        aria-label={`Move ${field.heading}`}
        size="2xs"
        variant="ghost"
        cursor="grab"
        {...attributes}
        {...listeners}
      >
        <GripVertical size={13} />
      </IconButton>
      <Text flex="1" minW="0" truncate>
        {field.heading}
      </Text>
      {add && (
        <IconButton aria-label={`Ask ${field.heading}`} size="2xs" variant="ghost" onClick={add}>
          <Plus size={12} />
        </IconButton>
      )}
    </HStack>
  );
}

function FieldCard({
  register,
  layout,
  one,
  isSelected,
  fault,
  controlOf,
  select,
  change,
}: LayoutCanvasProps & { readonly one: FormField; readonly isSelected: boolean; readonly fault: boolean }) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, ...moving } = useSortable({ id: one.field });
  const field = register.fields.find(({ key }) => key === one.field);
  const heading = field?.heading ?? one.field;
  const headingOf = (key: string) => register.fields.find((other) => other.key === key)?.heading ?? key;
  return (
    <HStack
      ref={setNodeRef}
      style={dragged(moving)}
      gridColumn={one.wide ? '1 / -1' : undefined}
      align="start"
      gap="1"
      bg="paper"
      borderWidth="1px"
      borderColor={isSelected ? 'damson.border' : 'line'}
      outline={isSelected ? '1px solid' : undefined}
      outlineColor="damson.border"
      rounded="l2"
      px="1"
      py="1.5"
    >
      <IconButton
        ref={setActivatorNodeRef}
        aria-label={`Move ${heading}`}
        size="2xs"
        variant="ghost"
        cursor="grab"
        {...attributes}
        {...listeners}
      >
        <GripVertical size={13} />
      </IconButton>
      <Box asChild flex="1" minW="0" textAlign="start" cursor="pointer">
        <button type="button" aria-pressed={isSelected} onClick={() => select({ field: one.field })}>
          <Text fontWeight="bold">
            {fault && <FaultMark />} {heading}
            {field?.rule?.mayBeBlank === false && (
              <Text as="span" fontWeight="normal" color="inkSoft" fontSize="xs">
                {' '}
                must not be blank
              </Text>
            )}
          </Text>
          <Text fontSize="xs" color="inkSoft">
            {field ? controlOf(one) : 'not in the sheet any more'}
          </Text>
          {one.where && (
            <Text fontSize="xs" color="growth.fg">
              only where {filterClause(one.where, headingOf)}
            </Text>
          )}
        </button>
      </Box>
      <IconButton
        aria-label={`Take ${heading} out`}
        size="2xs"
        variant="ghost"
        onClick={() => {
          change(takeOut(layout, one.field));
          if (isSelected) select(undefined);
        }}
      >
        <X size={12} />
      </IconButton>
    </HStack>
  );
}
