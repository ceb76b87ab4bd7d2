import { Refused } from './postgres.mjs';

/** @throws Refused if this Node.js cannot run the server. */
export function refuseWrongNode(version) {
  const [major, minor] = version.split('.').map(Number);
  const fits = (major === 20 && minor >= 19) || (major === 22 && minor >= 12) || major > 22;
  if (!fits)
    throw new Refused(
      `This is Node.js ${version}. Jigsaw Room needs 20.19 or newer of version 20, or 22.12 or newer.`,
    );
}
