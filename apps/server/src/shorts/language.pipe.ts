import { BadRequestException, Injectable, type PipeTransform } from '@nestjs/common';
import { LANGUAGE_CODE } from '@sift-reel/forms';

/** A language by its code in an address. */
@Injectable()
export class LanguagePipe implements PipeTransform<string, string> {
  transform(value: string): string {
    if (!LANGUAGE_CODE.test(value)) throw new BadRequestException('The language must be a code such as es or pt-BR.');
    return value;
  }
}
