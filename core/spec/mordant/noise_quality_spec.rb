# frozen_string_literal: true

require "spec_helper"
require "support/night_shots"

# Against what the night scenes are without noise, beside filters of ffmpeg, each at its best on the same frames.
RSpec.describe Mordant::Noise do
  let(:poses) { [6, 6, 6, 7, 7] } # of the frames: two before, two after

  def cleaned(frames, at, **parameters)
    moment = Mordant::Grade::Moment.new(width: NightShots::WIDTH, height: NightShots::HEIGHT) { nil }
    Mordant::Steps::Noise.new({luma: 1.0, colour: 1.0, **parameters}).process(nil).call(frames[at], frames.dup.tap { |all| all.delete_at(at) }, moment) { |there| there.window.cut(frames[at], moment.window) }
  end

  before { Numo::NArray.srand(11) }

  NightShots::NAMES.each do |name|
    it "is closer to the truth of #{name} than the best of them, keeps as much of its edges, and leaves no trail of what moves" do
      truth, next_one = [6, 7].map { |pose| NightShots.log(NightShots.clean(name, pose)) }
      frames = poses.map { |pose| NightShots.log(NightShots.noisy(name, pose)) }
      best, contrast = NightShots.best_filter(frames, truth)
      fast, fine = %w[fast fine].map { |method| cleaned(frames, 2, frames: 2, method:) }
      expect([fast, fine].map { |made| NightShots.likeness(made, truth) }).to match([be > best + 0.5, be > best + 1.0])
      expect([fast, fine].map { |made| NightShots.contrast(made, truth) }).to all(be > [contrast, 1.0].min - 0.025)

      alone = cleaned([frames[2]], 0)
      moves = ((next_one - truth).abs.max(axis: 0) > 0.05)
      errors = [fast, alone].map { |made| Math.sqrt((Numo::DFloat.cast(made - truth)**2).sum(axis: 0)[moves].mean) }
      expect(errors[0]).to be < errors[1]
    end
  end

  it "finds as much noise of luma in the demo's footage as the manifest says its cameras have" do
    JSON.parse(File.read(File.join(NightShots::HERE, "manifest.json")))["shots"].select { |shot| %w[3A 3B 3C].include?(shot["shot"]) }.each do |shot|
      reader, to = Mordant::Media::Reader.new(File.join(NightShots::HERE, "media", shot["clip"]), rate: 24r, range: "legal"), Mordant::Colour::Conversion.new(from: shot["encoding"], to: "acescct").chain
      seen = [10, 30].lazy.map { |number| [described_class.turned(to.from_codes(reader.frame(number, width: 960, height: 540).rgb)), Mordant::Grade::Window.whole(960, 540)] }
      found = Mordant::Noise::Estimate.profile(seen)
      grey = described_class.turned(NightShots.log(NightShots.grey(shot["encoding"], shot["truth"]["noise"][1])))[0]
      expect(Math.sqrt(found.at_levels(Numo::SFloat[grey.mean])[0][0]) / grey.stddev).to be_between(0.75, 1.3), shot["shot"]
    end
  end
end
