// React Native as the web build has it: with the Pressable of src/ui/web, which tells the state of Paper's parts.
const web = require('react-native-web');
module.exports = { ...web, Pressable: require('../src/ui/web/Pressable').default };
