"""
What two independent implementations say of core/authentication/cases.json: one in Python (pyspf, dkimpy, authheaders), one
in Perl (Mail::SPF, Mail::DKIM, Mail::DMARC), the latter in authentication.pl beside this file. Nothing is asked of any
network: each case brings its own names. Prints the cases on which they agree with what is on file, and the others.

    apt-get install python3-spf python3-dkim python3-authheaders libmail-spf-perl libmail-dkim-perl libmail-dmarc-perl
    /usr/bin/python3 bin/peers/authentication.py
"""
import json
import os
import subprocess
import tempfile

import authheaders
import dkim
import dns.resolver
import spf
from authheaders import dmarc_lookup

HERE = os.path.dirname(os.path.abspath(__file__))
CASES = os.path.join(HERE, '../../core/authentication/cases.json')
cases = json.load(open(CASES))
domain = cases['domain']


class NoAnswer(Exception):
    pass


def spf_verdict(case):
    def look_up(name, kind, strict=True, timeout=None):
        found = case['zone'].get(name.rstrip('.').lower())
        if found == 'SERVFAIL':
            raise spf.TempError('no answer', name)
        as_kept = {
            'TXT': lambda value: (value.encode(),),
            'MX': lambda value: (10, value),
        }.get(kind, lambda value: value)
        return [((name, kind), as_kept(value)) for value in (found or {}).get(kind, [])]

    spf.DNSLookup = look_up
    return spf.query(i=case['ip'], s='bounce@' + domain, h=domain, strict=True).check()[0]


def make_keys(folder):
    """A signed message, its public key and another one, as files."""
    run = lambda *words, **more: subprocess.run(words, check=True, capture_output=True, **more).stdout
    for name in ('key', 'other'):
        run('openssl', 'genrsa', '-out', f'{folder}/{name}.pem', '2048')
        public = run('openssl', 'rsa', '-in', f'{folder}/{name}.pem', '-pubout', '-outform', 'DER')
        with open(f'{folder}/{name}.b64', 'wb') as file:
            file.write(run('base64', '-w0', input=public))
    message = f'From: hello@{domain}\r\nTo: a@b.example\r\nSubject: Wind\r\n\r\nHello.\r\n'.encode()
    with open(f'{folder}/key.pem', 'rb') as file:
        headers = [b'From', b'To', b'Subject']
        signature = dkim.sign(message, b's1', domain.encode(), file.read(), include_headers=headers)
    with open(f'{folder}/message.eml', 'wb') as file:
        file.write(signature + message)


def dkim_verdict(case, folder):
    read = lambda name: open(f'{folder}/{name}', 'rb').read()
    key, other = read('key.b64').decode(), read('other.b64').decode()
    fill = lambda text: text.replace('{key}', key).replace('{other}', other).replace(
        '{half}', key[: len(key) // 2]
    )
    found = fill(case['records'][0]).encode() if case['records'] else None
    try:
        return bool(dkim.verify(read('message.eml'), dnsfunc=lambda name, timeout=5: found))
    except Exception:
        return False


def dmarc_verdict(case):
    def look_up(name, kind='TXT'):
        found = case['zone'].get(str(name).rstrip('.'))
        if found is None:
            raise dns.resolver.NXDOMAIN()
        if found == 'SERVFAIL':
            raise NoAnswer()
        return [f'"{text}"' for text in found['TXT']]

    dmarc_lookup.query = look_up
    passed = 'pass' if case['passes'] else 'fail'
    of_spf = type('Spf', (), {'result': passed, 'smtp_mailfrom': 'b@' + case['domain'], 'smtp_helo': None})
    of_dkim = type('Dkim', (), {'result': passed, 'header_d': case['domain'], 'header_i': None})
    try:
        result, _, _, policy = authheaders.dmarc_per_from(
            case['domain'], spf_result=of_spf, dkim_result=of_dkim, dnsfunc=dmarc_lookup.dns_query
        )
    except NoAnswer:
        return 'temperror'
    return result if result == 'none' else f'{result} {policy}'


with tempfile.TemporaryDirectory() as folder:
    make_keys(folder)
    mine = {
        'spf': [spf_verdict(case) for case in cases['spf']],
        'dkim': [dkim_verdict(case, folder) for case in cases['dkim']],
        'dmarc': [dmarc_verdict(case) for case in cases['dmarc']],
    }
    theirs = json.loads(
        subprocess.run(
            ['perl', os.path.join(HERE, 'authentication.pl'), CASES, folder],
            check=True,
            capture_output=True,
        ).stdout
    )
agreed = 0
for kind, verdicts in mine.items():
    for case, one, other in zip(cases[kind], verdicts, theirs[kind]):
        if one == other == case['verdict']:
            agreed += 1
        else:
            print(f"{kind}, {case['name']}: on file {case['verdict']}, Python {one}, Perl {other}")
print(f'{agreed} agree with both.')
