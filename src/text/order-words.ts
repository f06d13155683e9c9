export const ORDER_STATES = {
  proposed: 'Open, not planned',
  planned: 'Planned',
  in_bay: 'In the bay',
  closed: 'Closed',
  cancelled: 'Cancelled',
} as const;

export const SOURCE_WORDS = {
  service_information: 'service information',
  bulletin: 'bulletin',
  part_maker: 'part maker',
  box: 'print on the box',
  forum: 'forum',
  memory: 'memory',
} as const;
