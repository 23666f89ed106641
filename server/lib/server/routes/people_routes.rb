# frozen_string_literal: true

module Server
  # Signing in and out, and accounts.
  module PeopleRoutes
    def self.registered(app)
      # Who is here, and whether anybody has to sign in.
      app.get "/api/here" do
        cache_control :no_store
        answer(asked: Person.asked?, person: Present.person&.to_h)
      end

      app.post "/api/sign_in" do
        body = body_json
        keys = {"address" => caller_address, "name" => body["name"].to_s}
        Try.count(keys)
        person = Person.known(body["name"], body["password"])
        halt 401, {error: "name and password do not belong together"}.to_json unless person

        Try.forget(keys)
        sign_in, secret = SignIn.begin(person, address: caller_address, browser: request.user_agent)
        Present.sign_in = sign_in
        response.set_cookie(SignIn::COOKIE, value: secret, path: "/", httponly: true, same_site: :strict, secure: Settings.https?, max_age: SignIn::LONGEST)
        answer(asked: true, person: person.to_h)
      end

      app.post "/api/sign_out" do
        Present.sign_in&.destroy
        response.delete_cookie(SignIn::COOKIE, path: "/")
        answer(asked: Person.asked?, person: nil)
      end

      # Browsers one is signed in with; an administrator sees everybody's.
      app.get "/api/sign_ins" do
        answer(sign_ins_here.includes(:person).order(seen_at: :desc).map(&:to_h))
      end

      app.delete "/api/sign_ins/:id" do
        sign_ins_here.fetch(params["id"]).destroy!
        answer({})
      end

      # All of one's own, this one too.
      app.delete "/api/sign_ins" do
        SignIn.where(person: Present.person).delete_all
        answer({})
      end

      app.put "/api/own_password" do
        body = body_json
        person = Present.person or raise Record::Missing, "nobody has an account here"
        Try.count({"name" => person.name})
        raise Mordant::ParameterError.new(path: "present", expected: "your password as it is now", found: "another") unless Person.known(person.name, body["present"])

        Try.forget({"name" => person.name})
        answer(person.change("password" => body["password"]).to_h)
      end

      app.get "/api/people" do
        answer(people: Person.order(:name).map(&:to_h), roles: Person::ROLES)
      end

      app.post "/api/people" do
        person = Person.made(body_json.slice("name", "initials", "role", "password"))
        status 201
        answer(person.to_h)
      end

      app.patch "/api/people/:id" do
        answer(Person.fetch(params["id"]).change(body_json.slice("role", "initials", "password", "ended")).to_h)
      end

      app.helpers do
        # Behind a stated proxy, whom that was asked by.
        def caller_address
          forwarded = request.get_header("HTTP_X_FORWARDED_FOR").to_s.split(",").last.to_s.strip if Settings.proxy
          (forwarded.to_s.empty? ? request.get_header("REMOTE_ADDR").to_s : forwarded)[0, 60]
        end

        def sign_ins_here
          (Present.person.nil? || Present.person.may?("administer")) ? SignIn.live : SignIn.live.where(person: Present.person)
        end
      end
    end
  end
end
