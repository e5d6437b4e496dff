import { type ErrorCode, errorStatus } from '@coomb/contract';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { findRefusal, logError } from './refusal.js';

/** Turns every throw into the one documented shape. Texts of bugs and of the database never leave the log. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  private readonly logger = new Logger('Error');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    // Who asked went away, and the work was ended for that: nobody is left to be told.
    if (response.destroyed && error instanceof Error && error.name === 'AbortError') return;
    const { code, message, details } = this.read(error);
    if (response.headersSent) return void response.end();
    response.status(errorStatus[code]).json({ error: { code, message, ...(details && { details }) } });
  }

  private read(error: unknown): { code: ErrorCode; message: string; details?: Record<string, unknown> | undefined } {
    const refusal = findRefusal(error);
    if (refusal !== error && refusal && !['file-unreadable', 'disk-full', 'unavailable'].includes(refusal.code)) logError(this.logger, error);
    if (refusal) return refusal;
    if (error instanceof HttpException) return readHttp(error);
    logError(this.logger, error);
    return { code: 'internal', message: 'Something went wrong in Coomb. Nothing was changed. Try again; if it happens again, the server log tells more.' };
  }
}

function readHttp(error: HttpException): { code: ErrorCode; message: string } {
  const status = error.getStatus();
  if (status === 404) return { code: 'not-found', message: 'There is nothing at this address.' };
  if (status === 413) return { code: 'too-large', message: 'The file or request is larger than Coomb takes (200 MB).' };
  return { code: 'input-invalid', message: 'The request could not be read.' };
}
