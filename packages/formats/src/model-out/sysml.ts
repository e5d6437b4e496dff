export const SYSML = 'http://www.omg.org/spec/SysML/20181001/SysML';

/** Stereotypes of SysML 1.7, in lower case: whatever a file's profile is called, these are the standard's. */
export const SYSML_STEREOTYPES: ReadonlySet<string> = new Set(
  (
    'requirement abstractrequirement block interfaceblock constraintblock valuetype flowproperty proxyport fullport satisfy verify derivereqt refine trace copy allocate testcase view viewpoint ' +
    'stakeholder conform expose participantproperty connectorproperty nestedconnectorend bindingconnector itemflow problem rationale elementgroup distributedproperty directedfeature ' +
    'invocationonnestedportaction triggeronnestedport addflowpropertyvalueonnestedportaction classifierbehaviorproperty adjunctproperty endpathmultiplicity boundreference propertyspecifictype nobuffer overwrite rate probability continuous discrete controloperator optional ' +
    'directedrelationshippropertypath'
  ).split(' '),
);
