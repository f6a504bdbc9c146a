/**
 * The 250 codes of the square-marker dictionary 36h12: six by six bits, row by row, most significant bit first, 1 for a light module;
 * any two codes differ in at least 12 bits under every rotation.
 * Source: S. Garrido-Jurado, R. Munoz-Salinas, F. J. Madrid-Cuevas, R. Medina-Carnicer, "Generation of fiducial marker dictionaries
 * using mixed integer linear programming", Pattern Recognition 51 (2016) 481. The tests compare the table with two libraries.
 */
// prettier-ignore
export const MARKER_CODES_36H12: readonly string[] = [
  'd2b63a09d', '6001134e5', '1206fbe72', 'ff8ad6cb4', '85da9bc49', 'b461afe9c', '6db51fe13', '5248c541f', '008f34503', '8ea462ece',
  'eac2be76d', '1af615c44', 'b48a49f27', '2e4e1283b', '78b1f2fa8', '27d34f57e', '89222fff1', '4c1669406', 'bf49b3511', 'dc191cd5d',
  '11d7c3f85', '16a130e35', 'e29f27eff', '428d8ae0c', '90d548477', '2319cbc93', 'c3b0c3dfc', '0424bccc9', '2a081d630', '762743d96',
  'd0645bf19', 'f38d7fd60', 'c6cbf9a10', '3c1be7c65', '276f75e63', '4490a3f63', 'da60acd52', '3cc68df59', 'ab46f9dae', '88d533d78',
  'b6d62ec21', 'b3c02b646', '22e56d408', 'ac5f5770a', 'aaa993f66', '4caa07c8d', '5c9b4f7b0', 'aa9ef0e05', '0705c5750', 'ac81f545e',
  '735b91e74', '8cc35cee4', 'e44694d04', 'b5e121de0', '261017d0f', 'f1d439eb5', 'a1a33ac96', '174c62c02', '1ee27f716', '8b1c5ece9',
  '6a05b0c6a', '0d0568dfc', '192d25e5f', '1adbeccc8', 'cfec87f00', 'd0b9dde7a', '88dcef81e', '445681cb9', 'dbb2ffc83', 'a48d96df1',
  'b72cc2e7d', '0c295b53f', 'f49832704', '9968edc29', '9e4e1af85', '8683e2d1b', '810b45c04', '6ac44bfe2', '645346615', '3990bd598',
  '1c9ed0f6a', 'c26729d65', '83993f795', '3ac05ac5d', '357adff3b', '0d5c05565', '2f547ef44', '86c115041', '640fd9e5f', 'ce08bbcf7',
  '109bb343e', 'c21435c92', '35b4dfce4', '459752cf2', 'ec915b82c', '51881eed0', '2dda7dc97', '2e0142144', '42e890f99', '9a8856527',
  '8e80d9d80', '891cbcf34', '25dd82410', '239551d34', '8fe8f0c70', '94106a970', '82609b40c', '0fc9caf36', '688181d11', '718613c08',
  '0f1ab7629', 'a357bfc18', '4c03b7a46', '204dedce6', 'ad6300d37', '84cc4cd09', '42160e5c4', '87d2adfa8', '7850e7749', '4e750fc7c',
  'bf2e5dfda', 'd88324da5', '234b52f80', '378204514', 'abdf2ad53', '365e78ef9', '49caa6ca2', '03c39ddf3', 'c68c5385d', '5bfcbbf67',
  '623241e21', 'abc90d5cc', '388c6fe85', 'da0e2d62d', '10855dfe9', '4d46efd6b', '76ea12d61', '9db377d3d', 'eed0efa71', 'e6ec3ae2f',
  '441faee83', 'ba19c8ff5', '313035eab', '6ce8f7625', '880dab58d', '8d3409e0d', '2be92ee21', 'd60302c6c', '469ffc724', '87eebeed3',
  '42587ef7a', '7a8cc4e52', '76a437650', '999e41ef4', '7d0969e42', 'c02baf46b', '9259f3e47', '2116a1dc0', '9f2de4d84', '00effac29',
  '7b371ff8c', '668339da9', 'd010aee3f', '1cd00b4c0', '95070fc3b', 'f84c9a770', '38f863d76', '3646ff045', 'ce1b96412', '7a5d45da8',
  '14e00ef6c', '5e95abfd8', 'b2e9cb729', '036c47dd7', 'b8ee97c6b', '0e9e8f657', 'd4ad2ef1a', '8811c7f32', '47bde7c31', '3adadfb64',
  '6e5b28574', '33e67cd91', '2ab9fdd2d', '8afa67f2b', 'e6a28fc5e', '72049cdbd', 'ae65dac12', '1251a4526', '1089ab841', 'e2f096ee0',
  'b0caee573', 'fd6677e86', '444b3f518', 'be8b3a56a', '680a75cfc', 'ac02baea8', '97d815e1c', '1d4386e08', '1a14f5b0e', 'e658a8d81',
  'a3868efa7', '3668a9673', 'e8fc53d85', '2e2b7edd5', '8b2470f13', 'f69795f32', '4589ffc8e', '2e2080c9c', '064265f7d', '3d714dd10',
  '1692c6ef1', '3e67f2f49', '5041dad63', '1a1503415', '64c18c742', '0a72eec35', '1f0f9dc60', 'a9559bc67', 'f32911d0d', '21c0d4ffc',
  'e01cef5b0', '4e23a3520', 'aa4f04e49', 'e1c4fcc43', '208e8f6e8', '8486774a5', '9e98c7558', '2c59fb7dc', '9446a4613', '8292dcc2e',
  '004d61631', 'd05527809', 'a0163852d', '8f657f639', 'cca6c3e37', 'cb136bc7a', 'fc5a83e53', '9aa44fc30', 'bdec1bd3c', 'e020b9f7c',
  '4b8f35fb0', 'b8165f637', '33dc88d69', '10a2f7e4d', 'c8cb5ff53', 'de259ff6b', '46d070dd4', '32d3b9741', '7075f1c04', '4d58dbea0',
];
