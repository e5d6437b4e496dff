import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useParams } from 'react-router';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { DrawingDesk } from './desk/DrawingDesk';
import { KeptDrawing } from './made/KeptDrawing';
import { useDrawing, useDrawings } from './desk/queries';

/** A drawing beside a list of what it may be linked with. */
export function DrawingPage() {
  const project = useProject();
  const id = useParams().drawing!;
  const drawing = useDrawing(project.id, id);
  const drawings = useDrawings(project.id);
  const outline = useOutline();
  const error = drawing.error ?? outline.error;
  if (error) return <ErrorNote error={error} />;
  if (!drawing.data || !outline.data) return <Loading what="the drawing" />;
  if (drawing.data.made)
    return <KeptDrawing key={drawing.data.id} drawing={drawing.data} made={drawing.data.made} outline={outline.data} all={drawings.data ?? []} />;
  return <DrawingDesk key={drawing.data.id} drawing={drawing.data} outline={outline.data} all={drawings.data ?? []} />;
}
