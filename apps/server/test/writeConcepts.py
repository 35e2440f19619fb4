# Writes concepts (SKOS) with a writer that shares no code with Dellum: as others say them, with narrower ones and in two languages.
import sys

from rdflib import Graph, Literal, Namespace, URIRef
from rdflib.namespace import DCTERMS, OWL, RDF, SKOS, XSD

SCHEMA = Namespace('https://schema.org/')
BASE = Namespace('https://harbour.invalid/berths/')
graph = Graph()
scheme = BASE['']
graph.add((scheme, RDF.type, SKOS.ConceptScheme))
graph.add((scheme, DCTERMS.title, Literal('Berths', lang='en')))
for quay in ['North', 'South']:
    own = BASE[quay]
    graph.add((own, RDF.type, SKOS.Concept))
    graph.add((scheme, SKOS.hasTopConcept, own))
    graph.add((own, SKOS.prefLabel, Literal(quay, lang='en')))
    graph.add((own, SKOS.prefLabel, Literal({'North': 'Nord', 'South': 'Süd'}[quay], lang='de')))
    for berth in range(1, 4):
        one = URIRef(f'{own}/{berth}')
        graph.add((one, RDF.type, SKOS.Concept))
        graph.add((own, SKOS.narrower, one))
        graph.add((one, SKOS.notation, Literal(f'{quay[0]}{berth}')))
        graph.add((one, SKOS.prefLabel, Literal(f'{quay} berth {berth}', lang='en')))
        graph.add((one, SKOS.altLabel, Literal(f'Platz {berth}{quay[0].lower()}', lang='de')))
    graph.add((URIRef(f'{own}/3'), OWL.deprecated, Literal(True)))
    graph.add((URIRef(f'{own}/2'), SCHEMA.validFrom, Literal('2026-01-01', datatype=XSD.date)))
    graph.add((URIRef(f'{own}/2'), SKOS.definition, Literal('Dredged; "deep"', lang='en')))
graph.serialize(destination=sys.argv[1], format=sys.argv[2], encoding='utf-8')
