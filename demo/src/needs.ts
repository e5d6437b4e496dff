/** Stakeholder needs of Larkbeck Weir: reference, title, text, priority. All invented. */
export const needs: [string, string, string, string][] = [
  [
    'NEED-001',
    'Keep the village dry',
    'People living below Larkbeck weir need the river kept within its banks in every flood that the weir can influence.',
    'High',
  ],
  ['NEED-002', 'Enough water for boats', 'Boaters need a navigable depth between Otterby lock and the weir pool from April to October.', 'High'],
  ['NEED-003', 'Warn in good time', 'Residents need a warning at least forty minutes before water reaches the first house.', 'High'],
  ['NEED-004', 'Pass the lock without help', 'Boat crews need to pass Otterby lock by themselves during daylight.', 'Medium'],
  ['NEED-005', 'Nobody gets hurt', 'Everyone near gates and lock needs to be safe from moving machinery and sudden currents.', 'High'],
  ['NEED-006', 'One person can run both sites', 'The duty controller needs to watch and steer both sites from one control room.', 'Medium'],
  ['NEED-007', 'Keep working in a power cut', 'The weir needs to stay controllable when the mains supply fails during a storm.', 'High'],
  ['NEED-008', 'Know what the river does', 'Hydrologists need trustworthy levels and flows from every gauge.', 'High'],
  ['NEED-009', 'Let fish pass', 'The fishery board needs migrating fish to pass the weir in both directions.', 'Medium'],
  ['NEED-010', 'Maintain without divers', 'Maintenance crews need to service gate drives and gauges without sending anyone under water.', 'Medium'],
  ['NEED-011', 'Explain afterwards', 'The flood authority needs to see afterwards why each gate moved.', 'Medium'],
  ['NEED-012', 'Quiet nights', 'Neighbours need gate movements at night to be no louder than the river.', 'Low'],
  ['NEED-013', 'Only the right hands', 'The operator needs to be sure that nobody else can move a gate.', 'High'],
  ['NEED-014', 'Spare parts for thirty years', 'The operator needs equipment that can be repaired with parts obtainable for thirty years.', 'Low'],
  ['NEED-015', 'Tell the boats', 'Boat crews need to see from the water whether the lock is ready for them.', 'Medium'],
  ['NEED-016', 'Visit by school classes', 'The parish wants school classes to be able to watch the weir from a safe place.', 'Low'],
];
