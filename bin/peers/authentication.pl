# The verdicts of Mail::SPF, Mail::DKIM and Mail::DMARC on some cases, as JSON; see authentication.py.
use strict;
use warnings;
use JSON::PP;
use Mail::DKIM::Verifier;
use Mail::DMARC::PurePerl;
use Mail::SPF;
use Net::DNS;

sub read_file { local $/; open my $file, '<', $_[0] or die; return scalar <$file> }

# A resolver that knows the names of one case and asks nobody.
package Names;
sub new { my ($class, $zone) = @_; return bless { zone => $zone, error => '' }, $class }
sub errorstring { return $_[0]{error} }
sub query { my $self = shift; my $answer = $self->send(@_); return $answer->answer ? $answer : undef }
sub send {
    my ($self, $name, $type) = @_;
    $type ||= 'A';
    $name =~ s/\.$//;
    my $found  = $self->{zone}{ lc $name };
    my $answer = Net::DNS::Packet->new($name, $type, 'IN');
    $answer->header->qr(1);
    $self->{error} = !defined $found ? 'NXDOMAIN' : ref $found ? 'NOERROR' : 'SERVFAIL';
    $answer->header->rcode($self->{error});
    return $answer if !ref $found;
    for my $value (@{ $found->{$type} || [] }) {
        my %data =
              $type eq 'TXT' ? (txtdata => [ unpack '(A255)*', $value ])
            : $type eq 'MX'  ? (preference => 10, exchange => $value)
            :                  (address => $value);
        $answer->push(answer => Net::DNS::RR->new(name => $name, type => $type, %data));
    }
    return $answer;
}

package main;
my ($cases, $folder) = (decode_json(read_file($ARGV[0])), $ARGV[1]);
my $domain = $cases->{domain};

sub spf_verdict {
    my ($case) = @_;
    my $server = Mail::SPF::Server->new(
        dns_resolver   => Names->new($case->{zone}),
        query_rr_types => Mail::SPF::Server->query_rr_type_txt,
    );
    my $request = Mail::SPF::Request->new(
        scope         => 'mfrom',
        identity      => "bounce\@$domain",
        ip_address    => $case->{ip},
        helo_identity => $domain,
    );
    return $server->process($request)->code;
}

sub dkim_verdict {
    my ($case) = @_;
    my ($key, $other) = map { read_file("$folder/$_.b64") } qw(key other);
    my $half    = substr $key, 0, length($key) / 2;
    my @records = map { s/\{key\}/$key/gr =~ s/\{other\}/$other/gr =~ s/\{half\}/$half/gr } @{ $case->{records} };
    Mail::DKIM::DNS::resolver(Names->new({ @records ? ("s1._domainkey.$domain" => { TXT => \@records }) : () }));
    my $verifier = Mail::DKIM::Verifier->new;
    $verifier->PRINT(read_file("$folder/message.eml"));
    $verifier->CLOSE;
    return $verifier->result eq 'pass' ? JSON::PP::true : JSON::PP::false;
}

sub dmarc_verdict {
    my ($case) = @_;
    # It asks whether the domain is there at all, which is no part of the cases.
    my %there = map { $_ => { A => ['192.0.2.1'] } }
        qw(example.com news.example.com b.example.com a.b.example.com example.co.uk news.example.co.uk);
    my $names = Names->new({ %there, %{ $case->{zone} } });
    no warnings qw(redefine once);
    local *Mail::DMARC::Base::get_resolver = sub { $names };
    my $dmarc  = Mail::DMARC::PurePerl->new;
    my $passed = $case->{passes} ? 'pass' : 'fail';
    $dmarc->header_from($case->{domain});
    $dmarc->source_ip('192.0.2.7');
    $dmarc->envelope_from($case->{domain});
    $dmarc->dkim([ { domain => $case->{domain}, selector => 's1', result => $passed } ]);
    $dmarc->spf([ { domain => $case->{domain}, scope => 'mfrom', result => $passed } ]);
    my $result = $dmarc->validate;
    my $policy = eval { $result->published };
    return 'none' if $result->result eq 'none' || !$policy;
    return lc join q( ), $result->result, $dmarc->is_subdomain && defined $policy->sp ? $policy->sp : $policy->p;
}

print JSON::PP->new->canonical->encode({
    spf   => [ map { spf_verdict($_) } @{ $cases->{spf} } ],
    dkim  => [ map { dkim_verdict($_) } @{ $cases->{dkim} } ],
    dmarc => [ map { dmarc_verdict($_) } @{ $cases->{dmarc} } ],
});
