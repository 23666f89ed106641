# frozen_string_literal: true

require "spec_helper"

RSpec.describe Mordant::Cut::Edit do
  def shot(key, source_in, length, **more) = Mordant::Cut::Timeline::Shot.new(key:, clip: key.to_s[0], source_in:, length:, clip_frames: 100, **more)

  def places(edit) = edit.shots.map { |one| [one.key, one.source_in, one.record_in, one.length] }

  let(:edit) { described_class.new([shot(:a, 10, 20), shot(:b, 30, 30, dissolve: 4), shot(:c, 50, 10, clock: 3)]) }

  def refused(words) = raise_error(Mordant::ParameterError, words)

  it "splits a shot into two that show the same frames, and joins them again" do
    parts = edit.split(32)
    expect(places(parts)).to eq([[:a, 10, 0, 20], [:b, 30, 20, 12], [[:new, :b], 42, 32, 18], [:c, 50, 50, 10]])
    expect(parts.shots[2].clock).to eq(12)
    expect((0...60).map { |frame| Mordant::Cut::Timeline.new(parts.shots).layers(frame).map(&:source_frame) })
      .to eq((0...60).map { |frame| Mordant::Cut::Timeline.new(edit.shots).layers(frame).map(&:source_frame) })
    expect(parts.join(:b).shots).to eq(edit.shots)
    expect { edit.split(22) }.to refused(/after its transition of 4/)
    expect { edit.split(20) }.to refused(/after its first/)
    expect { edit.join(:a) }.to refused(/next frame of the same clip/)
  end

  it "trims both ends, ripples, and leaves what is bound to frames with its source frames" do
    expect(places(edit.trim(:b, head: 5, tail: -2))).to eq([[:a, 10, 0, 20], [:b, 35, 20, 27], [:c, 50, 47, 10]])
    expect(edit.trim(:c, head: -8).shots.last.then { |one| [one.source_in, one.clock, one.length] }).to eq([42, -5, 18])
    expect { edit.trim(:a, head: -11) }.to refused(/11 frames of handle before it.*10/)
    expect { edit.trim(:c, tail: -41) }.to refused(/41 frames of handle after it.*40/)
    expect { edit.trim(:c, tail: 10) }.to refused(/at least one frame/)
    expect { described_class.new([shot(:a, 0, 96), shot(:b, 0, 9, dissolve: 4)]).trim(:a, tail: -1) }.to refused(/4 frames of handle/)
  end

  it "rolls an edit, slips a shot and changes its length" do
    expect(places(edit.roll(:b, 3))).to eq([[:a, 10, 0, 23], [:b, 33, 23, 27], [:c, 50, 50, 10]])
    slipped = edit.slip(:b, -30).shots[1]
    expect([slipped.source_in, slipped.length, slipped.clock]).to eq([0, 30, -30])
    expect { edit.slip(:b, -31) }.to refused(/within the 100/)
    expect(edit.resize(:b, 7).length).to eq(37)
    expect { edit.roll(:a, 1) }.to refused(/a shot before it/)
  end

  it "moves, inserts and deletes; transitions without their handles become shorter, or cuts" do
    expect(edit.move([:c], before: :a).shots.map { |one| [one.key, one.dissolve] }).to eq([[:c, 0], [:a, 0], [:b, 4]])
    expect(edit.move([:b], before: :a).shots.map { |one| [one.key, one.dissolve] }).to eq([[:b, 0], [:a, 0], [:c, 0]])
    expect(edit.insert(shot(:n, 88, 10), before: :b).shots.map { |one| [one.key, one.dissolve] }).to eq([[:a, 0], [:n, 0], [:b, 2], [:c, 0]])
    expect(places(edit.delete([:a])).first).to eq([:b, 30, 0, 30])
    black = edit.delete([:b], black: Mordant::Cut::Timeline::Shot.new(key: nil, clip: "black", source_in: 0, length: 1, clip_frames: 9999))
    expect([black.length, black.shots[1].clip, black.shots[1].length]).to eq([60, "black", 30])
    expect { edit.delete(%i[a b c]) }.to refused(/at least one shot/)
    expect { edit.move([:z]) }.to refused(/a shot of the cut/)
  end

  it "puts transitions and takes them away" do
    expect(edit.transition(:c, 5, wipe: 21).shots.last.to_h.slice(:dissolve, :wipe)).to eq(dissolve: 5, wipe: 21)
    expect(edit.transition(:b, 0).shots[1].dissolve).to eq(0)
    expect { edit.transition(:c, 11) }.to refused(/no longer than the shot/)
    expect { edit.transition(:c, -1) }.to refused(/no longer than the shot/)
    expect { edit.transition(:c, 5, wipe: 999) }.to refused(/pattern of a wipe/)
    expect { edit.transition(:a, 5) }.to refused(/a shot before the transition/)
  end

  it "cuts a programme up at many frames" do
    film = described_class.new([shot(:f, 0, 100)])
    expect(places(film.cut_up(:f, [40, 12, 12, 0, 100, 70]))).to eq([[:f, 0, 0, 12], [[:new, :f, 12], 12, 12, 28], [[:new, :f, 40], 40, 40, 30], [[:new, :f, 70], 70, 70, 30]])
  end

  it "goes through a clip slower, faster, backwards and not at all" do
    frames = ->(one) { (0...one.length).map { |record| one.source_at(one.record_in + record) } }
    expect(frames[shot(:a, 10, 6, speed: 0.5)]).to eq([10, 10, 11, 11, 12, 12])
    expect(frames[shot(:a, 10, 6, speed: 1.0 / 3)]).to eq([10, 10, 10, 11, 11, 11])
    expect(frames[shot(:a, 10, 5, speed: 2.5)]).to eq([10, 12, 15, 17, 20])
    expect(frames[shot(:a, 10, 4, speed: -1.0)]).to eq([10, 9, 8, 7])
    expect(frames[shot(:a, 10, 3, speed: 0.0)]).to eq([10, 10, 10])
    slow = described_class.new([shot(:a, 10, 20, speed: 0.5)])
    halves = slow.split(5).shots
    expect(halves.flat_map(&frames)).to eq(frames[slow.shots.first])
    expect([shot(:a, 10, 20, speed: 0.5).head, shot(:a, 10, 20, speed: 0.5).tail, shot(:a, 10, 4, speed: -1.0).head, shot(:a, 10, 4, speed: -1.0).tail]).to eq([20, 160, 89, 7])
    expect { slow.retime(:a, 6.0) }.to refused(/within the 100/)
    expect { slow.retime(:a, -1.0) }.to refused(/within the 100/)
  end

  it "holds to its rules whatever a hand does" do
    random = Random.new(5)
    200.times do
      edit = described_class.new([shot(:a, 10, 20), shot(:b, 30, 30, dissolve: 4), shot(:c, 50, 10)])
      12.times do |step|
        key = edit.shots.sample(random:).key
        edit = case random.rand(8)
        when 0 then edit.split(random.rand(edit.length)).then { |made| described_class.new(made.shots.map { |one| (one.key == [:new, one.key[1]]) ? one.with(key: "n#{step}") : one }) }
        when 1 then edit.trim(key, head: random.rand(-9..9), tail: random.rand(-9..9))
        when 2 then edit.roll(key, random.rand(-9..9))
        when 3 then edit.slip(key, random.rand(-9..9))
        when 4 then edit.move([key], before: edit.shots.sample(random:).key)
        when 5 then edit.delete([key])
        when 6 then edit.transition(key, random.rand(9))
        else edit.retime(key, random.rand(-2.0..2.0).round(2))
        end
      rescue Mordant::ParameterError
        next
      end
      frames = (0...edit.length).flat_map { |frame| Mordant::Cut::Timeline.new(edit.shots).layers(frame).map(&:source_frame) }
      expect(frames.minmax).to all(be_between(0, 99))
    end
  end
end

RSpec.describe Mordant::Cut::Wipe do
  def picture(number, share, width: 40, height: 20, **manner)
    described_class.new(number, **manner).weights(share, [width, height], Mordant::Grade::Window.whole(width, height)).reshape(height, width)
  end

  it "uncovers the side its pattern says, and half of the picture half way" do
    half = picture(1, 0.5)
    expect([half[true, 0...19].min, half[true, 21...40].max]).to eq([1.0, 0.0])
    expect([picture(2, 0.5)[0, 5], picture(2, 0.5)[19, 5], picture(4, 0.5)[0, 39], picture(4, 0.5)[19, 0], picture(21, 0.2)[10, 20], picture(21, 0.2)[10, 0], picture(119, 0.3)[10, 20], picture(119, 0.3)[0, 0]]).to eq([1, 0] * 4)
    expect([picture(201, 0.25)[2, 30], picture(201, 0.25)[18, 30], picture(202, 0.25)[18, 30], picture(202, 0.25)[2, 30]]).to eq([1, 0, 1, 0])
  end

  it "opens a circle that is round, whatever the picture's shape" do
    open = picture(119, 0.5, width: 160, height: 90)
    expect([open[45, true], open[true, 80]].map { |line| (line > 0.5).count_true }).to all(be_within(2).of(0.5 * Math.hypot(160, 90)))
  end

  it "has an edge as soft as wanted, and runs the other way" do
    soft = picture(1, 0.5, width: 100, softness: 0.4)[0, true]
    # half of the way lies in the middle of an edge of 0.4 that goes from 0.7 back to 0.3
    expect([10, 29, 50, 71, 90].map { |x| soft[x].round(2) }).to eq([1.0, 1.0, 0.49, 0.0, 0.0])
    expect(picture(1, 0.25, backward: true)[5, true].to_a.each_slice(10).map(&:sum)).to eq([0, 0, 0, 10])
    expect(picture(201, 0.25, backward: true)[2, 10]).to eq(1.0)
    expect([picture(22, 0.3, backward: true)[0, 5], picture(22, 0.3, backward: true)[10, 5]]).to eq([1.0, 0.0])
    expect([0.0, 1.0].map { |share| picture(45, share, softness: 1.0, backward: true).minmax }).to eq([[0.0, 0.0], [1.0, 1.0]])
  end

  it "begins with nothing and ends with all, and a part of a picture is as the whole" do
    described_class::PATTERNS.each_key do |number|
      expect([picture(number, 0.0).max, picture(number, 1.0).min]).to eq([0.0, 1.0]), number.to_s
      window = Mordant::Grade::Window.new(left: 7, top: 3, width: 11, height: 9)
      expect(described_class.new(number).weights(0.4, [40, 20], window)).to eq(picture(number, 0.4)[3...12, 7...18].dup.flatten)
    end
  end
end

RSpec.describe Mordant::Media::Surrounded do
  # A clip of 20 frames whose pictures are their numbers.
  let(:reader) { Class.new { def each(first:, count:, **) = (first...(first + count)).each { |number| yield number } }.new }

  def seen(wanted, window: 1)
    [].tap { |list| described_class.each(reader, wanted:, frames: 20, window:) { |codes, around| list << [codes, around[-1], around[0], around[1]] } }
  end

  it "gives frames as they are wanted, with those around them in the clip" do
    around = ->(number) { [number, (number - 1 if number.positive?), number, (number + 1 if number < 19)] }
    [(0...20).to_a, [3, 3, 4, 4, 5], [2, 5, 9, 19], [19, 18, 17], [9, 9, 8, 8, 7, 7, 6, 5, 4, 3], [15, 11, 7, 3], [6, 6, 6], [4]].each do |wanted|
      expect(seen(wanted)).to eq(wanted.map(&around)), wanted.to_s
    end
    expect(seen([])).to eq([])
  end
end
