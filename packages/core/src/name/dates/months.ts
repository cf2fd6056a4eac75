/** Months by their names in several languages, whole or cut short. */
import { fold } from '../../text/fold';

/** By month, those of languages in which the first three letters stand for the whole. */
const SHORTENED: readonly string[] = [
  'january januar januari janvier',
  'february februar februari fevrier fev',
  'march marz maerz maart mrt mrz mars',
  'april avril avr',
  'may mai mei',
  'june juni juin',
  'july juli juillet',
  'august augustus augusti aout',
  'september septembre sept',
  'october oktober octobre',
  'november novembre',
  'december dezember decembre',
];

/** Cut short, these would be other words: they count whole. */
const WHOLE: readonly string[] = [
  'gennaio enero janeiro styczen stycznia leden ledna tammikuu',
  'febbraio febrero fevereiro luty lutego unor unora helmikuu',
  'marzo marco marzec marca brezen brezna maaliskuu',
  'aprile abril kwiecien kwietnia duben dubna huhtikuu',
  'maggio mayo maio maj maja kveten kvetna toukokuu',
  'giugno junio junho czerwiec czerwca cerven cervna kesakuu',
  'luglio julio julho lipiec lipca cervenec cervence heinakuu',
  'agosto sierpien sierpnia srpen srpna elokuu',
  'settembre septiembre setembro wrzesien wrzesnia zari syyskuu',
  'ottobre octubre outubro pazdziernik pazdziernika rijen rijna lokakuu',
  'noviembre novembro listopad listopada listopadu marraskuu',
  'dicembre diciembre dezembro grudzien grudnia prosinec prosince joulukuu',
];

const SHORT = SHORTENED.map((words) => words.split(' '));
const LONG = WHOLE.map((words) => new Set(words.split(' ')));

/** 1 to 12; 0 where the word is no month. At least three letters are needed. */
export function monthOf(word: string): number {
  const plain = fold(word).text.toLowerCase();
  if (plain.length < 3) return 0;
  const at = LONG.findIndex((words) => words.has(plain));
  return (at >= 0 ? at : SHORT.findIndex((words) => words.some((month) => month.startsWith(plain)))) + 1;
}
